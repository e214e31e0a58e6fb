<?php

declare(strict_types=1);

namespace Cartella\Core\Words\Internal;

use Cartella\Core\Process;
use Cartella\Core\Words\Exception\UnableToRecognise;
use Cartella\Core\Words\SpeechModel;

/**
 * Runs Debian's `pocketsphinx_batch` over short sounds: samples of 16 bit at 16 kHz, mono, a file each. Times are frames of 10 ms.
 *
 * @internal
 *
 * @phpstan-type Heard array{word: string, from: int, to: int, score: float, sure: float}
 */
final class Pocketsphinx
{
    public const RATE = 16_000;

    public const FRAMES_A_SECOND = 100;

    private const PROGRAM = 'pocketsphinx_batch';

    public const PACKAGE = 'pocketsphinx';

    /** Seconds for one run over a few minutes of sound; past it something is wrong. */
    private const LIMIT = 3600;

    /** Bytes of address space, with the widest search over a whole script; and of what it writes about it. */
    private const MEMORY = 3 << 30;

    private const OUTPUT = 1 << 30;

    public static function isThere(): bool
    {
        foreach (explode(':', getenv('PATH') ?: '/usr/bin:/bin') as $folder) {
            if (is_executable($folder . '/' . self::PROGRAM)) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  string  $folder  that may be written in
     * @param  list<string>  $sounds  names of files in it, ending in `.raw`
     * @param  list<string>  $how  the options of a search, such as a language model
     * @return list<list<Heard>> for each sound its words, fillers and silences left out; `score` is how well a frame fits, the higher
     *     the better, `sure` 0 to 1 against what else it might be
     *
     * @throws UnableToRecognise
     */
    public static function run(SpeechModel $model, string $folder, array $sounds, array $how, int $atOnce): array
    {
        if ($sounds === []) {
            return [];
        }
        $run = bin2hex(random_bytes(3));
        $parts = self::parts($folder, $sounds, max(1, $atOnce));
        $commands = [];
        foreach ($parts as $part => $indexes) {
            $base = "$folder/$run-$part";
            file_put_contents(
                "$base.ctl",
                implode("\n", array_map(static fn(int $at): string => basename($sounds[$at], '.raw'), $indexes)) . "\n",
            );
            $commands["part $part"] = [
                ...Process::bounds(self::MEMORY, self::OUTPUT),
                ...[self::PROGRAM, '-hmm', $model->acoustic, '-adcin', 'yes', '-cepdir', $folder, '-cepext', '.raw'],
                ...['-ctl', "$base.ctl", '-hypseg', "$base.seg", '-backtrace', 'yes', '-logfn', "$base.log", '-remove_silence', 'no'],
                ...$how,
            ];
        }
        $heard = array_fill(0, count($sounds), []);
        foreach (Process::several($commands, $atOnce, self::LIMIT) as $part => $ended) {
            $number = (int) substr($part, 5);
            $base = "$folder/$run-$number";
            if ($ended['status'] !== 0) {
                throw UnableToRecognise::failed(self::why($base, $ended));
            }
            $log = @fopen("$base.log", 'rb');
            $found = $log === false ? [] : self::read($log);
            foreach ($parts[$number] as $at) {
                $heard[$at] = $found[basename($sounds[$at], '.raw')] ?? [];
            }
            array_map(unlink(...), glob("$base.*") ?: []);
        }

        return $heard;
    }

    /** @param  array{status: int, error: string}  $ended */
    private static function why(string $base, array $ended): string
    {
        $log = (string) @file_get_contents("$base.log", false, null, max(0, (int) @filesize("$base.log") - 4096));
        preg_match_all('/^(?:ERROR|FATAL)[^\n]*: ([^\n]+)$/m', $log, $said);

        return end($said[1]) ?: ($ended['error'] !== '' ? $ended['error'] : 'it ended with status ' . $ended['status']);
    }

    /**
     * About the same length of sound for each process.
     *
     * @param  list<string>  $sounds
     * @return list<list<int>>
     */
    private static function parts(string $folder, array $sounds, int $count): array
    {
        $parts = array_fill(0, min($count, count($sounds)), []);
        $sizes = array_fill(0, count($parts), 0);
        foreach ($sounds as $at => $name) {
            $least = (int) array_search(min($sizes), $sizes, true);
            $parts[$least][] = $at;
            $sizes[$least] += (int) @filesize("$folder/$name") + 1;
        }

        return $parts;
    }

    /**
     * The words of each sound, from the log's back-traces.
     *
     * @param  resource  $log
     * @return array<string, list<Heard>>
     */
    private static function read($log): array
    {
        $found = $open = [];
        $isTable = false;
        while (($line = fgets($log)) !== false) {
            if (preg_match('/^word\s+start\s+end\s+pprob\s+ascr/', $line) === 1) {
                $open = [];
                $isTable = true;
            } elseif ($isTable && preg_match('/^(\S+)\s+(\d+)\s+(\d+)\s+([\d.e+-]+)\s+(-?\d+)\s+(-?\d+)/i', $line, $part) === 1) {
                $word = (string) preg_replace('/\(\d+\)\z/', '', $part[1]);
                if (preg_match('/\A(?:<.*>|\[.*\]|\+\+.*\+\+)\z/', $word) !== 1) {
                    $frames = (int) $part[3] - (int) $part[2] + 1;
                    $open[] = [
                        'word' => $word,
                        'from' => (int) $part[2],
                        'to' => (int) $part[3] + 1,
                        'score' => (int) $part[5] / max(1, $frames),
                        'sure' => (float) $part[4],
                    ];
                }
            } elseif (preg_match('/: (\S+): [\d.]+ seconds speech, /', $line, $part) === 1) {
                $found[$part[1]] = $open;
                $open = [];
                $isTable = false;
            }
        }
        fclose($log);

        return $found;
    }
}
