<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** What the devices of a day have in common, and what they have not. */
final readonly class ClipCheckAnswer
{
    /**
     * @param  list<array{device: string, kind: string, clips: int, running_ticks: int, first_ticks: int|null,
     *     last_ticks: int|null}>  $devices
     * @param  list<array{device: string, against: string, title: string, evidence: string}>  $differences
     */
    public function __construct(public array $devices, public array $differences) {}
}
