<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** What lies in a bin: a reference, and what is shown of the clip behind it. Ticks. */
final readonly class BinRowAnswer
{
    /**
     * @param  'clip'|'take'|'subclip'|'sequence'  $what
     * @param  string|null  $clip  whose sheet is shown for it; a sequence has none
     * @param  string|null  $file  what the clip's file is called
     * @param  int|null  $day  the number of the shoot day
     * @param  int|null  $in_ticks  where a subclip begins
     * @param  int  $channels  of sound
     * @param  array{ulid: string, kind: string}|null  $sequence
     * @param  list<AngleAnswer>  $angles  of a take
     * @param  list<array{ulid: string, kind: string, name: string, times: int}>  $used  the cuts and reels that show it
     */
    public function __construct(
        public string $ref,
        public string $what,
        public ?string $clip,
        public string $name,
        public ?string $file,
        public ?string $kind,
        public ?string $import_kind,
        public ?string $device,
        public ?int $day,
        public ?int $in_ticks,
        public ?int $duration_ticks,
        public ?int $start_ticks,
        public ?string $recorded_at,
        public int $channels,
        public ?array $sequence,
        public ?RowTakeAnswer $take,
        public bool $ready,
        public bool $is_away,
        public ?string $colour,
        public array $angles,
        public array $used,
    ) {}

    /** @param  array<string, mixed>  $row */
    public static function of(array $row): self
    {
        return new self(
            ...[
                'take' => $row['take'] === null ? null : new RowTakeAnswer(...$row['take']),
                'angles' => array_map(static fn(array $one): AngleAnswer => new AngleAnswer(...$one), $row['angles']),
            ] + $row,
        );
    }
}
