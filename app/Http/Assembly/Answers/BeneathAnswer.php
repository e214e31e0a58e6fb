<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

use App\Http\ListOf;
use App\Models\Clip;
use App\Models\Take;
use App\Support\Clock;
use Cartella\Core\Cutting\Sequence;

/** What lies under the playhead; nothing where nothing does. Ticks of the source that are left before and after it. */
final readonly class BeneathAnswer
{
    /**
     * @param  string  $from  its own timecode where it begins
     * @param  list<InsteadAnswer>  $instead
     */
    public function __construct(
        public ?string $name,
        public ?CutTakeAnswer $take,
        public ?CutClipAnswer $clip,
        public string $from,
        public int $before_ticks,
        public int $after_ticks,
        #[ListOf(InsteadAnswer::class)] public array $instead,
    ) {}

    /**
     * @param  array{clip: Clip|null, take: Take|null, before: int, after: int}  $found
     * @param  list<InsteadAnswer>  $instead
     */
    public static function of(array $found, array $instead, Sequence $cut, int $track, int $index): self
    {
        $item = $cut->tracks[$track]->items[$index];

        return new self(
            $item->name,
            $found['take'] === null ? null : CutTakeAnswer::of($found['take']),
            $found['clip'] === null ? null : CutClipAnswer::of($found['clip']),
            Clock::label($item->source->startTicks + $item->sourceStartTicks, $item->source->rate ?? $cut->rate),
            $found['before'],
            $found['after'],
            $instead,
        );
    }
}
