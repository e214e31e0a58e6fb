<?php

declare(strict_types=1);

namespace App\Http\Account\Answers;

/** Codes that get somebody in who lost their second factor; each once. */
final readonly class RecoveryCodesAnswer
{
    /** @param  list<string>  $recovery_codes */
    public function __construct(public array $recovery_codes) {}
}
