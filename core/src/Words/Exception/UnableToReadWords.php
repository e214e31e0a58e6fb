<?php

declare(strict_types=1);

namespace Cartella\Core\Words\Exception;

use Cartella\Core\Failure;

/** Words, cues or a text that are not what they should be. */
final class UnableToReadWords extends Failure
{
    public static function nothing(): self
    {
        return new self(
            'There is no cue with a time and words in it.',
            'words.none',
            'SRT, WebVTT and the JSON of words are read here; a text without times is aligned to a sound instead.',
        );
    }

    public static function word(int $number, string $why): self
    {
        return new self(
            sprintf('Word %d %s.', $number, $why),
            'words.invalid',
            'Each word has a text, start_ticks and end_ticks, in ticks from the start of the sound.',
            ['word' => $number],
        );
    }

    public static function large(int $bytes): self
    {
        return new self(
            'The text is longer than a clip could say.',
            'words.large',
            sprintf('Up to %d MB are read; cut it into a file for each clip.', $bytes >> 20),
        );
    }
}
