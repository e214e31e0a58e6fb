<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

use App\Http\ListOf;
use App\Http\Shell\Answers\TaskAnswer;

/** An offloaded card. Bytes and ticks. */
final readonly class CardAnswer
{
    /**
     * @param  'copying'|'verified'|'fault'|'stopped'  $state
     * @param  list<array{path: string, reason: string, byte?: int, destination?: string}>  $faults
     * @param  list<string>|null  $chosen_stores
     * @param  list<CardCopyAnswer>  $copies
     * @param  bool  $is_dropped  its files were dropped on a page: there is no card to wipe
     * @param  string|null  $upload  that still has them
     */
    public function __construct(
        public string $ulid,
        public string $roll,
        public string $volume,
        public ?string $device,
        public ?string $device_note,
        public ?string $kind,
        public string $state,
        public int $files,
        public int $verified_files,
        public int $size_bytes,
        public array $faults,
        public bool $is_safe,
        public bool $is_one_disk,
        public int $matched_files,
        public ?array $chosen_stores,
        public bool $on_bench,
        public ?string $verified_at,
        public ?string $released_at,
        public ?string $released_by,
        public int $clips,
        public int $running_ticks,
        public int $use_number,
        public ?string $first_at,
        public ?string $last_at,
        public ?int $clock_ticks,
        public bool $is_dropped,
        public ?string $upload,
        #[ListOf(CardCopyAnswer::class)] public array $copies,
        public ?TaskAnswer $task,
    ) {}
}
