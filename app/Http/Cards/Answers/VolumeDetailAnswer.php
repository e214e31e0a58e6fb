<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** A volume in a reader, with its files. */
final readonly class VolumeDetailAnswer
{
    /**
     * @param  'camera'|'recorder'|'folder'  $kind
     * @param  list<string>  $problems
     * @param  'new'|'seen'|'grown'|'reused'  $state
     * @param  list<array{path: string, size_bytes: int, kind: string|null, is_new: bool}>  $list
     */
    public function __construct(
        public string $name,
        public int $files,
        public int $size_bytes,
        public int $clips,
        public string $roll,
        public ?string $device,
        public string $kind,
        public string $why,
        public ?VolumeClipAnswer $first,
        public ?VolumeClipAnswer $last,
        public array $problems,
        public int $problem_count,
        public ?string $date,
        public ?int $day,
        public string $state,
        public ?string $known_roll,
        public ?string $known_card,
        public int $known_files,
        public int $new_files,
        public bool $is_ours,
        public ?string $ours_why,
        public ?string $ask,
        public bool $in_all,
        public ?string $project,
        public array $list,
    ) {}
}
