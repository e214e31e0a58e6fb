<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

/** The devices of a production. */
final readonly class DevicesAnswer
{
    /** @param  list<DeviceRowAnswer>  $devices */
    public function __construct(public array $devices) {}
}
