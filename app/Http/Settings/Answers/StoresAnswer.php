<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

use App\Http\ListOf;

/** The places for copies. */
final readonly class StoresAnswer
{
    /** @param  list<StoreSettingAnswer>  $stores */
    public function __construct(#[ListOf(StoreSettingAnswer::class)] public array $stores) {}
}
