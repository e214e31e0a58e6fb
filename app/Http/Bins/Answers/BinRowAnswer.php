<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** What lies in a bin: a reference, and what is shown of the clip behind it. Ticks. */
final readonly class BinRowAnswer
{
    /**
     * @param  'clip'|'take'|'subclip'|'sequence'  $what
     * @param  string|null  $clip  whose sheet is shown for it; a sequence has none
     * @param  int|null  $in_ticks  where a subclip begins
     */
    public function __construct(
        public string $ref,
        public string $what,
        public ?string $clip,
        public string $name,
        public ?string $kind,
        public ?string $import_kind,
        public ?string $device,
        public ?int $in_ticks,
        public ?int $duration_ticks,
        public ?int $start_ticks,
        public ?RowTakeAnswer $take,
        public bool $ready,
    ) {}

    /** @param  array<string, mixed>  $row */
    public static function of(array $row): self
    {
        return new self(...['take' => $row['take'] === null ? null : new RowTakeAnswer(...$row['take'])] + $row);
    }
}
