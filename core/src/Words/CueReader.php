<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Exchange\ListProblem;
use Cartella\Core\Time\Ticks;

/**
 * Reads timed text: SubRip (SRT), WebVTT (W3C, https://www.w3.org/TR/webvtt1/) and the JSON of words.
 *
 * The words of a cue have even times inside it, by their letters; a cue keeps its own times. What is malformed is a problem
 * with its line, and the rest is
 * read: hostile tags, regions, styles and notes are no words. Text is UTF-8, UTF-16 with its mark, else Windows-1252.
 */
final class CueReader
{
    public const LARGEST = 32 << 20;

    private const MOST_CUES = 200_000;

    private const MOST_PROBLEMS = 500;

    private const LONGEST_LINE = 2000;

    private const STAMP = '(?:(\d{1,4}):)?(\d{1,2}):(\d{1,2})(?:[.,](\d{1,9}))?';

    /** A speaker before a colon, as people write it: one or two words in capitals, or after a dash. */
    private const SPEAKER = '/\A(?:-\s*)?(\p{Lu}[\p{Lu}\d .\'-]{1,30}):\s+(?=\S)/u';

    /**
     * @return array{transcript: Transcript, problems: list<ListProblem>}
     *
     * @throws Exception\UnableToReadWords if there is no cue in it
     */
    public static function read(string $bytes): array
    {
        if (strlen($bytes) > self::LARGEST) {
            throw Exception\UnableToReadWords::large(self::LARGEST);
        }
        $text = self::decoded($bytes);
        if (str_starts_with(ltrim($text), '{')) {
            return self::json($text);
        }
        $reader = new self();
        $reader->cues(explode("\n", $text), preg_match('/\A\s*WEBVTT(?:\s|\z)/', $text) === 1);
        if ($reader->words === []) {
            throw Exception\UnableToReadWords::nothing();
        }
        usort($reader->words, static fn(Word $x, Word $y): int => $x->startTicks <=> $y->startTicks ?: $x->endTicks <=> $y->endTicks);

        return ['transcript' => new Transcript($reader->words, '', 'cues'), 'problems' => $reader->problems];
    }

    /** Whether a text has times, so that it need not be aligned. */
    public static function isTimed(string $text): bool
    {
        return str_starts_with(ltrim($text), '{') || preg_match('/^\s*' . self::STAMP . '\s*-->/m', $text) === 1;
    }

    /** Foreign bytes as UTF-8 with plain line ends. */
    public static function decoded(string $bytes): string
    {
        $text = match (true) {
            str_starts_with($bytes, "\xFF\xFE") => mb_convert_encoding(substr($bytes, 2), 'UTF-8', 'UTF-16LE'),
            str_starts_with($bytes, "\xFE\xFF") => mb_convert_encoding(substr($bytes, 2), 'UTF-8', 'UTF-16BE'),
            str_starts_with($bytes, "\xEF\xBB\xBF") => substr($bytes, 3),
            default => $bytes,
        };
        if (!mb_check_encoding($text, 'UTF-8')) {
            $text = mb_convert_encoding($text, 'UTF-8', 'Windows-1252');
        }

        return str_replace(["\r\n", "\r", "\0"], ["\n", "\n", ''], $text);
    }

    /** @var list<Word> */
    private array $words = [];

    /** @var list<ListProblem> */
    private array $problems = [];

    private function __construct() {}

    /** @param  list<string>  $lines */
    private function cues(array $lines, bool $isVtt): void
    {
        $at = 0;
        $count = count($lines);
        $cues = 0;
        $isUnknown = false;
        while ($at < $count) {
            $line = trim($lines[$at]);
            if (str_contains($line, '-->')) {
                $isUnknown = false;
                $begin = $at + 1;
                $span = $this->span($line, $begin);
                $said = [];
                // A cue ends with an empty line, or, where that was lost, with the next cue's number or times.
                for ($at++; $at < $count && trim($lines[$at]) !== '' && !$this->isNext($lines, $at); $at++) {
                    if (strlen($lines[$at]) > self::LONGEST_LINE) {
                        $this->problem('The line is longer than a cue could be.', $at + 1);

                        continue;
                    }
                    $said[] = $lines[$at];
                }
                if ($span !== null) {
                    if (++$cues > self::MOST_CUES) {
                        $this->problem('There are more cues than a clip could have; the rest is left out.', $begin);

                        return;
                    }
                    $this->say($said, $span[0], $span[1], $begin);
                }

                continue;
            }
            if ($isVtt && preg_match('/\A(NOTE|STYLE|REGION)(?:\s|\z)/', $line) === 1) {
                for (; $at < $count && trim($lines[$at]) !== ''; $at++);

                continue;
            }
            // A number, a name of a cue or the heading; anything else between cues is said once.
            $isHead = $line === '' || ($at === 0 && $isVtt) || str_contains(trim($lines[$at + 1] ?? ''), '-->');
            if (!$isHead && !$isUnknown && ($cues > 0 || !$isVtt)) {
                $this->problem('This is no cue: it has no times.', $at + 1);
                $isUnknown = true;
            }
            $at++;
        }
    }

    /** @param  list<string>  $lines */
    private function isNext(array $lines, int $at): bool
    {
        return str_contains($lines[$at], '-->') ||
            (preg_match('/\A\s*\d{1,7}\s*\z/', $lines[$at]) === 1 &&
                preg_match('/' . self::STAMP . '\s*-->/', $lines[$at + 1] ?? '') === 1);
    }

    /** @return array{int, int}|null */
    private function span(string $line, int $number): ?array
    {
        if (preg_match('/\A' . self::STAMP . '\s*-->\s*' . self::STAMP . '(?:\s|\z)/', $line, $part, PREG_UNMATCHED_AS_NULL) !== 1) {
            $this->problem('The times of this cue cannot be read.', $number);

            return null;
        }
        $start = self::ticks($part[1] ?? null, (string) $part[2], (string) $part[3], $part[4] ?? null);
        $end = self::ticks($part[5] ?? null, (string) $part[6], (string) $part[7], $part[8] ?? null);
        if ($start === null || $end === null) {
            $this->problem('The times of this cue are none of a clock.', $number);

            return null;
        }
        if ($end < $start) {
            $this->problem('This cue ends before it begins.', $number);

            return null;
        }

        return [$start, $end];
    }

    private static function ticks(?string $hours, string $minutes, string $seconds, ?string $fraction): ?int
    {
        if ((int) $minutes > 59 || (int) $seconds > 59 || (int) ($hours ?? 0) > 99) {
            return null;
        }
        $digits = $fraction ?? '0';

        return ((int) ($hours ?? 0) * 3600 + (int) $minutes * 60 + (int) $seconds) * Ticks::PER_SECOND +
            intdiv((int) $digits * Ticks::PER_SECOND, 10 ** strlen($digits));
    }

    /** @param  list<string>  $lines */
    private function say(array $lines, int $startTicks, int $endTicks, int $number): void
    {
        $speaker = null;
        $pieces = [];
        foreach ($lines as $line) {
            // A voice of WebVTT, or a name in capitals.
            if (preg_match('/<v(?:\.[^\s>]*)?\s+([^>]{1,60})>/u', $line, $part) === 1) {
                $speaker = trim(html_entity_decode($part[1], ENT_QUOTES | ENT_HTML5));
            }
            $plain = html_entity_decode(
                (string) preg_replace(['/<[^<>]{0,200}>/u', '/\{\\\\[^{}]{0,200}\}/u'], '', $line),
                ENT_QUOTES | ENT_HTML5,
            );
            if (preg_match(self::SPEAKER, $plain, $part) === 1) {
                $speaker = mb_convert_case($part[1], MB_CASE_TITLE);
                $plain = substr($plain, strlen($part[0]));
            }
            foreach (SpokenText::written($plain) as $word) {
                $pieces[] = [$word, $speaker];
            }
        }
        if ($pieces === []) {
            $this->problem('This cue says nothing.', $number);

            return;
        }
        // By letters: a long word takes longer than a short one.
        $weights = array_map(static fn(array $piece): int => mb_strlen($piece[0]) + 1, $pieces);
        $sum = array_sum($weights);
        $before = 0;
        foreach ($pieces as $index => [$word, $who]) {
            $from = $startTicks + intdiv(($endTicks - $startTicks) * $before, $sum);
            $before += $weights[$index];
            $this->words[] = new Word($word, $from, $startTicks + intdiv(($endTicks - $startTicks) * $before, $sum), $who);
        }
    }

    private function problem(string $reason, int $line): void
    {
        if (count($this->problems) < self::MOST_PROBLEMS) {
            $this->problems[] = new ListProblem($reason, $line);
        }
    }

    /** @return array{transcript: Transcript, problems: list<ListProblem>} */
    private static function json(string $text): array
    {
        $given = json_decode($text, true, 32);
        $words = is_array($given) ? $given['words'] ?? null : null;
        if (!is_array($words) || $words === []) {
            throw Exception\UnableToReadWords::nothing();
        }
        $read = $problems = [];
        foreach (array_values($words) as $index => $one) {
            try {
                $read[] = Word::fromArray($one, $index + 1);
            } catch (Exception\UnableToReadWords $trouble) {
                if (count($problems) < self::MOST_PROBLEMS) {
                    $problems[] = new ListProblem($trouble->getMessage(), null, "words.$index");
                }
            }
        }
        if ($read === []) {
            throw Exception\UnableToReadWords::nothing();
        }
        usort($read, static fn(Word $x, Word $y): int => $x->startTicks <=> $y->startTicks ?: $x->endTicks <=> $y->endTicks);
        $engine = is_string($given['engine'] ?? null) ? mb_substr($given['engine'], 0, 60) : '';
        $model = is_string($given['model'] ?? null) ? mb_substr($given['model'], 0, 60) : '';

        return ['transcript' => new Transcript($read, $engine, $model), 'problems' => $problems];
    }
}
