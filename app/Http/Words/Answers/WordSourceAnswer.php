<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

use App\Domain\Words\ClipWords;
use App\Http\ListOf;
use App\Models\Clip;
use App\Models\Passage;
use App\Models\Transcript;

/** Words that are heard in a clip: of the clip itself, or of a recording under it. Ticks are the recording's own. */
final readonly class WordSourceAnswer
{
    /**
     * @param  string  $clip  in which they are heard
     * @param  int  $offset_ticks  of its first sample behind the first frame of the clip that is looked at
     * @param  int  $from_ticks  of the clip that is looked at, from which on it is heard
     * @param  'recognised'|'service'|'cues'|'text'  $source
     * @param  list<PassageAnswer>  $passages
     */
    public function __construct(
        public string $clip,
        public string $name,
        public int $offset_ticks,
        public int $from_ticks,
        public int $to_ticks,
        public string $language,
        public string $source,
        public string $engine,
        public string $model,
        public ?string $by,
        public ?string $at,
        public CallsAnswer $calls,
        #[ListOf(PassageAnswer::class)] public array $passages,
    ) {}

    /** @param  array{transcript: Transcript, clip: Clip, offset: int, from: int, to: int}  $source */
    public static function of(array $source): self
    {
        $transcript = $source['transcript'];

        return new self(
            $source['clip']->ulid,
            $source['clip']->title(),
            $source['offset'],
            $source['from'],
            $source['to'],
            $transcript->language,
            $transcript->source,
            $transcript->engine,
            $transcript->model,
            $transcript->user?->name,
            $transcript->updated_at?->toIso8601String(),
            CallsAnswer::of($transcript->calls ?? []),
            ClipWords::passages($source)->map(static fn(Passage $one): PassageAnswer => PassageAnswer::of($one))->values()->all(),
        );
    }
}
