<?php

declare(strict_types=1);

namespace Tests\App\Words;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Words\KeepWords;
use App\Models\Clip;
use App\Models\Transcript;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Words\Transcript as Words;
use Cartella\Core\Words\Word;

/** Clips in which somebody was heard. */
trait SaysWords
{
    /**
     * Words of half a second each, from some second on.
     *
     * @param  list<array{float, string, string|null}>  $lines  second, text, speaker
     */
    private function say(Clip $clip, array $lines, float $confidence = 0.9): Transcript
    {
        $words = [];
        foreach ($lines as [$at, $text, $speaker]) {
            foreach (explode(' ', $text) as $n => $word) {
                $start = (int) (($at + $n * 0.4) * Ticks::PER_SECOND);
                $words[] = new Word($word, $start, $start + intdiv(Ticks::PER_SECOND, 3), $speaker, $confidence);
            }
        }

        return app(KeepWords::class)($clip, $this->person(), new Words($words, 'test', 'script'), 'recognised', 'en-us');
    }

    /** What cataloguing keeps of a sound of one channel in which nothing stirs. */
    private function catalogueSilence(Clip $clip, int $seconds): void
    {
        $steps = intdiv(48000 * $seconds, 256);
        $head = pack('vvVVP', 1, 1, 256, 48000, 256 * $steps) . pack('V', $steps);
        file_put_contents(MediaFolder::of($clip)->write(MediaFile::Peaks), 'CPK1' . $head . str_repeat("\0", 6 * $steps));
    }
}
