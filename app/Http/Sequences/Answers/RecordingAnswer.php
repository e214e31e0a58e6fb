<?php

declare(strict_types=1);

namespace App\Http\Sequences\Answers;

use App\Domain\Sequences\SoundPiece;
use App\Models\Clip;

/** A recording whose channels can be heard, each by itself. */
final readonly class RecordingAnswer
{
    /**
     * @param  'picture'|'sound'  $kind
     * @param  list<array{index: int, name: string}>  $channels  from 1
     */
    public function __construct(public string $clip, public string $name, public string $kind, public array $channels) {}

    /**
     * @param  list<SoundPiece>  $pieces
     * @return list<self> each once, in the order in which they are heard
     */
    public static function all(array $pieces): array
    {
        $clips = [];
        foreach ($pieces as $piece) {
            $clips[$piece->clip->id] ??= $piece->clip;
        }

        return array_map(self::of(...), array_values($clips));
    }

    private static function of(Clip $clip): self
    {
        return new self(
            $clip->ulid,
            $clip->title(),
            $clip->isSound() ? 'sound' : 'picture',
            array_map(
                static fn(array $channel): array => ['index' => $channel['index'], 'name' => (string) $channel['name']],
                array_values($clip->channels ?? []),
            ),
        );
    }
}
