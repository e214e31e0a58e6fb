<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

use App\Http\Lineup\Answers\ClipLookAnswer;
use App\Http\Shell\Answers\RateAnswer;

/** Everything about one clip, and one person's marks on it. Ticks from its first frame, but for what is on a clock. */
final readonly class ClipSheetAnswer
{
    /**
     * @param  'picture'|'sound'|'still'|'other'  $kind
     * @param  list<string>  $parts  the files of its recording
     * @param  list<string>  $sidecars
     * @param  list<array{index: int, name: string, function: string|null}>  $channels
     * @param  list<string>  $problems
     * @param  array{clip: string, name: string, is_default: bool, channels: list<array{index: int, name: string, on: bool,
     *     gain_db: float}>}|null  $sound
     *     what of the recorder is heard under it
     * @param  array{ulid: string, setup: string, take: int, part: string, status: 'none'|'circled'|'hold'|'ng',
     *     description: string}|null  $take
     * @param  array<string, string>  $fields  what is said of the take, by key
     * @param  string  $screening  what people said of the take while they watched it
     * @param  array<string, array{by: string|null, place: string|null}>  $sources  whose word that is, by the same keys
     * @param  list<array{ulid: string, label: string, in_ticks: int|null, out_ticks: int|null}>  $takes
     * @param  array{in_ticks: int|null, out_ticks: int|null}  $marks
     * @param  list<SubclipAnswer>  $subclips
     * @param  list<MarkerAnswer>  $markers
     * @param  list<array{key: string, name: string, as: 'clip'|'take'|'subclip'}>  $bins  people's own
     * @param  list<array{path: string, size_bytes: int, algorithm: string|null, hash: string|null, copies: int,
     *     verified_at: string|null}>  $files
     *     of the card, with their proof
     * @param  array{by: string, words: string, was: string, at: string}|null  $found  how its media were found again
     * @param  string|null  $library  the production that shares it, where it is not this one's
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $file,
        public string $kind,
        public ?string $import_kind,
        public ?string $device,
        public ?string $roll,
        public string $path,
        public array $parts,
        public array $sidecars,
        public string $day,
        public ?int $duration_ticks,
        public ?int $frames,
        public ?int $start_ticks,
        public ?string $start_timecode,
        public ?string $corrected_timecode,
        public ?int $placed_ticks,
        public RateAnswer $rate,
        public ?int $sample_rate,
        public array $channels,
        public ?int $width,
        public ?int $height,
        public ?string $recorded_at,
        public array $problems,
        public bool $ready,
        public bool $synced,
        public bool $has_sound,
        public string $media_version,
        public ?ClipLookAnswer $look,
        public ?array $sound,
        public ?int $head_frames,
        public ?array $take,
        public array $fields,
        public string $screening,
        public array $sources,
        public array $takes,
        public array $marks,
        public array $subclips,
        public array $markers,
        public array $bins,
        public array $files,
        public ?string $away_at,
        public ?array $found,
        public ?string $library,
    ) {}

    /** @param  array<string, mixed>  $sheet */
    public static function of(array $sheet): self
    {
        return new self(
            ...[
                'rate' => RateAnswer::of($sheet['rate']),
                'look' => $sheet['look'] === null ? null : new ClipLookAnswer(...$sheet['look']),
                'subclips' => array_map(SubclipAnswer::of(...), $sheet['subclips']),
                'markers' => array_map(MarkerAnswer::of(...), $sheet['markers']),
            ] + $sheet,
        );
    }
}
