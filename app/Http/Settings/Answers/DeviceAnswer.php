<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

use App\Models\Device;

/** A camera or recorder of the production. */
final readonly class DeviceAnswer
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
    ) {}

    public static function of(Device $device): self
    {
        return new self(
            $device->ulid,
            $device->letter,
            $device->kind,
            (string) $device->note,
            $device->lane,
            $device->colour,
            $device->retired_at !== null,
        );
    }
}
