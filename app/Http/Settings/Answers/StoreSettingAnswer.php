<?php

declare(strict_types=1);

namespace App\Http\Settings\Answers;

/** A place for copies, as the set-up shows it. */
final readonly class StoreSettingAnswer
{
    public function __construct(
        public string $ulid,
        public string $key,
        public string $name,
        public string $path,
        public bool $is_there,
        public bool $is_other,
        public bool $is_retired,
        public ?int $device,
        public ?int $free_bytes,
        public ?int $total_bytes,
        public int $cards,
    ) {}
}
