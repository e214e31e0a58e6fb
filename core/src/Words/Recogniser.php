<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Time\Ticks;
use Cartella\Core\Words\Internal\Pocketsphinx;

/**
 * Finds what is said in a sound, on this machine and without a network: stretch by stretch, with a language model of what may be said
 * there ({@see ScriptModel}), and with the language's general one where that does not fit.
 *
 * What the general model heard is a draft: its words are marked so, and their confidence says it.
 */
final class Recogniser
{
    public const ENGINE = 'pocketsphinx';

    /** Ticks of sound that are recognised before progress is told; a task can be stopped there. */
    private const WINDOW = 120 * Ticks::PER_SECOND;

    private const FRAME = Ticks::PER_SECOND / Pocketsphinx::FRAMES_A_SECOND;

    /** Share of a stretch's words that are the script's, under which it is free speech; the most confidence that a draft's words have. */
    private const FITS = 0.55;

    private const CALLED = 0.9;

    private const DRAFT = 0.5;

    private const PLAIN = ['-remove_noise', 'yes'];

    /** The vocabulary is small: more is followed up than with all words of a language. */
    private const WIDE = ['-topn', '8', '-beam', '1e-100', '-pbeam', '1e-100', '-wbeam', '1e-80', ...self::PLAIN];

    /** @var list<string> options of the search with the script's model */
    private readonly array $ofScript;

    /** @var list<ScriptLine> */
    private readonly array $lines;

    private function __construct(private readonly SpeechModel $model, private readonly ScriptModel $script, private readonly string $folder)
    {
        $this->lines = [...$script->scene, ...$script->near, ...$script->rest];
        $language = $script->languageModel();
        $lines = [];
        foreach (Pronunciations::of($language->vocabulary(), $model->dictionary, $model->voices()) as $word => $ways) {
            foreach ($ways as $number => $phones) {
                $lines[] = $word . ($number === 0 ? '' : '(' . ($number + 1) . ')') . " $phones";
            }
        }
        file_put_contents("$folder/script.dict", implode("\n", $lines) . "\n");
        file_put_contents("$folder/script.lm", $language->arpa());
        $this->ofScript = ['-lm', "$folder/script.lm", '-dict', "$folder/script.dict", ...self::WIDE];
    }

    /** @throws Exception\UnableToRecognise if the program or the model is not on this machine */
    public static function need(?SpeechModel $model): SpeechModel
    {
        if (!Pocketsphinx::isThere()) {
            throw Exception\UnableToRecognise::noEngine(Pocketsphinx::PACKAGE);
        }

        return $model ?? throw Exception\UnableToRecognise::noEngine(Pocketsphinx::PACKAGE . '-en-us');
    }

    /**
     * Listens from some moment on, and gives what it heard piece by piece; {@see finish} makes words of the pieces.
     *
     * @param  Listening  $plan  what is listened to
     * @param  string  $folder  an empty one that may be written in
     * @param  callable(list<Word>, int): void  $onHeard  gets words, and the ticks up to which they are; may throw to stop
     * @param  int  $fromTicks  what begins before it is left out: an earlier run has heard it
     *
     * @throws Exception\UnableToRecognise
     */
    public static function listen(
        SoundSource $sound,
        Listening $plan,
        SpeechModel $model,
        ScriptModel $script,
        string $folder,
        callable $onHeard,
        int $fromTicks = 0,
        int $atOnce = 2,
    ): void {
        $units = array_values(array_filter($plan->units, static fn(array $unit): bool => $unit['from'] >= $fromTicks));
        $recogniser = $units === [] ? null : new self($model, $script, $folder);
        while ($units !== [] && $recogniser !== null) {
            $window = [];
            $begin = $units[0]['from'];
            while ($units !== [] && ($window === [] || $units[0]['to'] - $begin <= self::WINDOW)) {
                $window[] = array_shift($units);
            }
            // The next run goes on with the next stretch, which may begin before this one ends.
            $until = $units === [] ? max(array_column($window, 'to')) : $units[0]['from'];
            $onHeard($plan->snapped($recogniser->window($sound, $window, $atOnce)), $until);
        }
    }

    /**
     * What was heard, in order, spelled and given speakers by the script as far as that was read.
     *
     * @param  list<Word>  $words
     */
    public static function finish(ScriptModel $script, array $words): Transcript
    {
        usort($words, static fn(Word $x, Word $y): int => $x->startTicks <=> $y->startTicks);
        $drafts = count(array_filter($words, static fn(Word $word): bool => $word->isDraft));
        $lines = [...$script->scene, ...$script->near, ...$script->rest];

        return new Transcript(
            Reads::spelled($lines, $words),
            self::ENGINE,
            2 * $drafts > count($words) || $lines === [] ? 'general' : 'script',
        );
    }

    /**
     * @param  non-empty-list<array{channel: int, from: int, to: int, speaker: ?string}>  $units
     * @return list<Word>
     */
    private function window(SoundSource $sound, array $units, int $atOnce): array
    {
        $from = min(array_column($units, 'from'));
        $to = max(array_column($units, 'to'));
        $channels = array_values(array_unique(array_column($units, 'channel')));
        $decoded = $sound->decode($channels, $from, $to, $this->folder, Pocketsphinx::RATE);
        $sounds = [];
        foreach ($units as $number => $unit) {
            $first = Ticks::toSamples($unit['from'] - $from, Pocketsphinx::RATE);
            $count = Ticks::toSamples($unit['to'] - $unit['from'], Pocketsphinx::RATE);
            $sounds[] = sprintf('u%05d.raw', $number);
            file_put_contents(
                "$this->folder/$sounds[$number]",
                (string) file_get_contents($decoded[$unit['channel']], false, null, 2 * $first, 2 * $count),
            );
        }
        array_map(unlink(...), $decoded);
        $heard = Pocketsphinx::run($this->model, $this->folder, $sounds, $this->ofScript, $atOnce);
        $words = $open = [];
        foreach ($units as $number => $unit) {
            $said = self::words($unit, $heard[$number], false);
            $share = $this->share($said);
            if ($share < self::FITS && $this->model->general !== null && $said !== [] && !$this->script->isAll) {
                $open[$number] = $said;
            } else {
                array_push($words, ...$said);
            }
        }
        // What is not the script's is free speech.
        $general = ['-lm', (string) $this->model->general, '-dict', $this->model->dictionary, ...self::PLAIN];
        $free = Pocketsphinx::run(
            $this->model,
            $this->folder,
            array_map(static fn(int $number): string => $sounds[$number], array_keys($open)),
            $general,
            $atOnce,
        );
        foreach (array_keys($open) as $at => $number) {
            array_push($words, ...self::words($units[$number], $free[$at], true));
        }
        array_map(fn(string $name): bool => unlink("$this->folder/$name"), $sounds);

        return $words;
    }

    /**
     * @param  array{channel: int, from: int, to: int, speaker: ?string}  $unit
     * @param  list<array{word: string, from: int, to: int, score: float, sure: float}>  $heard
     * @return list<Word>
     */
    private static function words(array $unit, array $heard, bool $isDraft): array
    {
        return array_map(
            static fn(array $one): Word => new Word(
                $one['word'],
                $unit['from'] + (int) ($one['from'] * self::FRAME),
                min($unit['to'], $unit['from'] + (int) ($one['to'] * self::FRAME)),
                $unit['speaker'],
                round($isDraft ? min(self::DRAFT, $one['sure']) : $one['sure'], 3),
                $isDraft,
            ),
            $heard,
        );
    }

    /**
     * How much of a stretch is what may be said: words of lines that were read, and calls of the floor.
     *
     * @param  list<Word>  $words
     */
    private function share(array $words): float
    {
        if ($words === []) {
            return 0.0;
        }
        $called = array_fill_keys(SpokenSlate::calledWords($words, $this->script->style), true);
        $read = array_replace([], ...array_column(Reads::of($this->lines, $words), 'said'));
        $share = count($called + $read) / count($words);

        // Anything sounds like a slate if nothing else may be said: one that is called is all that a stretch says.
        return $called !== [] && $share < self::CALLED ? 0.0 : $share;
    }
}
