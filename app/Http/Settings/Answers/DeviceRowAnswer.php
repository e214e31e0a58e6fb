<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

/** A device as the set-up lists it. */
final readonly class DeviceRowAnswer
{
    /**
     * @param  'camera'|'recorder'|'phone'|'other'  $kind
     * @param  int|null  $colour  one that somebody chose; null is by its letter
     */
    public function __construct(
        public string $ulid,
        public string $letter,
        public string $kind,
        public string $note,
        public int $lane,
        public ?int $colour,
        public bool $is_retired,
        public int $clips,
    ) {}
}
