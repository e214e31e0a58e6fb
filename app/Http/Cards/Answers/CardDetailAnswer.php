<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

use App\Http\ListOf;
use App\Http\Shell\Answers\TaskAnswer;

/** An offloaded card, with its files and releases. */
final readonly class CardDetailAnswer
{
    /**
     * @param  'copying'|'verified'|'fault'|'stopped'  $state
     * @param  list<array{path: string, reason: string, byte?: int, destination?: string}>  $faults
     * @param  list<string>|null  $chosen_stores
     * @param  list<CardCopyAnswer>  $copies
     * @param  list<array{path: string, size_bytes: int, algorithm: string|null, hash: string|null, copies: int,
     *     fault: string|null}>  $list
     * @param  list<CardReleaseAnswer>  $releases
     * @param  list<FoundClipAnswer>  $found  at most 500
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
        public array $list,
        #[ListOf(CardReleaseAnswer::class)] public array $releases,
        #[ListOf(FoundClipAnswer::class)] public array $found,
    ) {}
}
