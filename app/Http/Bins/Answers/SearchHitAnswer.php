<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** Something that was found, and where it is: the clip that is shown for it and the moment in it, in ticks from its first frame. */
final readonly class SearchHitAnswer
{
    /**
     * @param  'take'|'clip'|'marker'|'spoken'|'subclip'|'sequence'|'bin'  $what
     * @param  string  $note  the line that was found, or where the thing belongs
     * @param  string|null  $clip  ULID
     * @param  string|null  $kind  of the clip
     * @param  string|null  $day  ULID
     * @param  array{setup: string, take: int, part: string, status: 'none'|'circled'|'hold'|'ng'}|null  $take
     */
    public function __construct(
        public string $what,
        public string $ulid,
        public string $name,
        public string $note,
        public ?int $at_ticks,
        public ?array $take,
        public ?string $clip,
        public ?string $kind,
        public bool $ready,
        public ?string $device,
        public ?string $day,
        public ?int $number,
    ) {}
}
