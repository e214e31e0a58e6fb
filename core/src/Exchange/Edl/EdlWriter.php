<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange\Edl;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Cutting\Transition;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;

/**
 * Writes the cut list that the trade exchanges as plain text (SMPTE ST 258 family).
 *
 * The first picture track, then sound tracks as `A`, `A2`…; items and tracks that are off are left out. Times are labels at the
 * sequence's rate. A cut that begins with nothing begins with a black event, so that its first label is known. A dissolve begins
 * where its event does; speeds are `M2` lines, negative backwards. Reels go by {@see ShortReels}, with a note of the whole name.
 * Comments that {@see EdlReader} kept are written back. Lines end in CR LF. The same sequence gives the same bytes.
 */
final class EdlWriter
{
    public const EVENTS_PER_FILE = 999;

    /** @param  array<string, string>  $reels */
    private function __construct(private readonly Sequence $sequence, private readonly array $reels) {}

    /** @return non-empty-list<string> one text per file: a further one begins after 999 events */
    public static function write(Sequence $sequence): array
    {
        return (new self($sequence, ShortReels::of($sequence)))->files();
    }

    /** @return non-empty-list<string> */
    private function files(): array
    {
        $files = [];
        foreach (array_chunk($this->events(), self::EVENTS_PER_FILE) ?: [[]] as $index => $chunk) {
            $lines = [
                'TITLE: ' . self::line($this->sequence->title) . ($index === 0 ? '' : ' ' . ($index + 1)),
                'FCM: ' . ($this->sequence->rate->dropFrame ? 'DROP FRAME' : 'NON-DROP FRAME'),
                ...$index === 0 ? self::comments($this->sequence->metadata) : [],
                '',
            ];
            foreach ($chunk as $number => [, $event]) {
                array_push($lines, ...$event(sprintf('%03d', $number + 1)));
            }
            $files[] = implode("\r\n", $lines) . "\r\n";
        }

        return $files;
    }

    /** @return list<array{int, callable(string): list<string>}> where each begins, frames of the sequence; and its lines, by its number */
    private function events(): array
    {
        $events = [];
        $sound = 0;
        $hasPicture = false;
        $first = null;
        foreach ($this->sequence->tracks as $track) {
            if (!$track->enabled || ($track->kind === TrackKind::Picture && $hasPicture)) {
                continue; // the form has one picture channel
            }
            $hasPicture = $hasPicture || $track->kind === TrackKind::Picture;
            $channel = $track->kind === TrackKind::Picture ? 'V' : (++$sound === 1 ? 'A' : 'A' . $sound);
            foreach ($this->ofTrack($track, $channel) as $event) {
                $events[] = $event;
            }
            $first ??= $channel;
        }
        // Stable, so that picture stands before the sound of the same moment.
        usort($events, static fn(array $x, array $y): int => $x[0] <=> $y[0]);
        $begins = $events[0][0] ?? 0;
        if ($begins > 0) {
            array_unshift($events, [0, fn(string $number): array => [$this->black($number, (string) $first, 0, $begins)]]);
        }

        return $events;
    }

    /** @return \Generator<array{int, callable(string): list<string>}> */
    private function ofTrack(Track $track, string $channel): \Generator
    {
        $items = array_values(array_filter($track->items, static fn(Item $item): bool => $item->enabled));
        foreach ($items as $index => $item) {
            $former = $items[$index - 1] ?? null;
            $next = $items[$index + 1] ?? null;
            $in = $this->frames($item->recordStartTicks) - $this->before($item);
            $out =
                $this->frames($item->recordEndTicks()) -
                ($next === null || $next->recordStartTicks !== $item->recordEndTicks() ? 0 : $this->before($next));
            if ($out <= $in) {
                continue; // less than a frame of sound
            }
            $going = $former !== null && $former->recordEndTicks() === $item->recordStartTicks ? $former : null;
            yield [$in, fn(string $number): array => $this->event($number, $channel, $item, $in, $out, $going)];
            if ($item->ending !== null) {
                $ending = $item->ending;
                $long = max(1, $this->frames($ending->durationTicks));
                $room = $next === null ? $long : $this->frames($next->recordStartTicks) - $out;
                if ($room > 0) {
                    yield [
                        $out,
                        fn(string $number): array => [
                            $this->goes($number, $channel, $item, $out),
                            $this->black($number, $channel, $out, $out + min($long, $room), $ending),
                        ],
                    ];
                }
            }
        }
    }

    /** Frames of its transition before its cut, as far as the source has them. */
    private function before(Item $item): int
    {
        $wanted = $this->frames($item->transition->beforeTicks ?? 0);
        $head = $item->recordStartTicks === 0 || !$item->speed->isPlain() ? 0 : $this->frames($item->sourceStartTicks);

        return min($wanted, $head);
    }

    private function frames(int $ticks): int
    {
        return Ticks::toFrames($ticks, $this->sequence->rate);
    }

    /** @return list<string> */
    private function event(string $number, string $channel, Item $item, int $in, int $out, ?Item $going): array
    {
        $begin = $item->source->startTicks + $item->sourceStartTicks;
        $first = $this->frames($begin) - $this->before($item);
        $last = $first + $out - $in;
        if (!$item->speed->isPlain()) {
            $end = Ticks::toFrames($begin + $item->speed->ofSource($item->durationTicks), $this->sequence->rate);
            [$first, $last] = $item->speed->num < 0 ? [$end, $first] : [$first, max($end, $first + 1)];
        }
        $lines = $item->transition === null ? [] : [$this->goes($number, $channel, $going, $in)];
        $lines[] = $this->row($number, $this->reel($item), $channel, $item->transition, $first, $last, $in, $out);
        if (!$item->speed->isPlain()) {
            $fps = rtrim(
                sprintf('%.6F', ($item->speed->num * $this->sequence->rate->num) / ($item->speed->den * $this->sequence->rate->den)),
                '0',
            );
            [$whole, $part] = explode('.', $fps);
            $padded = ($whole[0] === '-' ? '-' : '') . str_pad(ltrim($whole, '-'), 3, '0', STR_PAD_LEFT);
            $lines[] = sprintf('M2   %-8s %s %s', $this->reel($item), $padded . '.' . ($part === '' ? '0' : $part), $this->label($first));
        }
        if ($item->transition !== null && $going !== null) {
            $lines[] = '* FROM CLIP NAME: ' . self::line($going->name);
        }
        $lines[] = ($item->transition === null ? '* FROM CLIP NAME: ' : '* TO CLIP NAME: ') . self::line($item->name);
        if ($item->source->path !== null) {
            $lines[] = '* SOURCE FILE: ' . self::line(basename($item->source->path));
        }
        if ($item->source->reel !== null && $this->reel($item) !== $item->source->reel) {
            $lines[] = '* REEL: ' . self::line($item->source->reel);
        }
        if (is_string($item->metadata['hash'] ?? null)) {
            $lines[] = '* ORIGINAL HASH: ' . self::line($item->metadata['hash']);
        }
        if ($item->look !== null) {
            $lines[] = '* ASC_SOP ' . $item->look->sop();
            $lines[] = '* ASC_SAT ' . Cdl::number($item->look->saturation);
        }
        foreach ($item->markers as $marker) {
            $at = $this->sequence->startTicks + $item->recordStartTicks + $marker->atTicks;
            $lines[] = rtrim(sprintf('* LOC: %s %-7s %s', $this->label($this->frames($at)), 'GREEN', self::line($marker->name)));
            if ($marker->note !== '') {
                $lines[] = '* LOC NOTE: ' . self::line($marker->note);
            }
            if ($marker->durationTicks > 0) {
                $lines[] = '* LOC LENGTH: ' . $this->label($this->frames($marker->durationTicks));
            }
        }

        return [...$lines, ...self::comments($item->metadata)];
    }

    /** The line of what a transition leads away from: it stands, and lasts no time. */
    private function goes(string $number, string $channel, ?Item $item, int $at): string
    {
        $source = $item === null ? 0 : $this->frames($item->source->startTicks + $item->sourceEndTicks());

        return $this->row($number, $item === null ? ShortReels::BLACK : $this->reel($item), $channel, null, $source, $source, $at, $at);
    }

    private function black(string $number, string $channel, int $in, int $out, ?Transition $transition = null): string
    {
        return $this->row($number, ShortReels::BLACK, $channel, $transition, 0, $out - $in, $in, $out);
    }

    private function row(
        string $number,
        string $reel,
        string $channel,
        ?Transition $transition,
        int $sourceIn,
        int $sourceOut,
        int $in,
        int $out,
    ): string {
        $start = $this->frames($this->sequence->startTicks);
        $how = 'C   ';
        if ($transition !== null) {
            $wipe = preg_match('/\Awipe (\d{1,3})\z/', $transition->name, $kind) === 1 ? sprintf('W%03d', $kind[1]) : 'D   ';
            $how = $wipe . sprintf(' %03d', max(1, $this->frames($transition->durationTicks)));
        }

        return sprintf(
            '%s  %-8s %-5s %-8s %s %s %s %s',
            $number,
            $reel,
            $channel,
            $how,
            $this->label($sourceIn),
            $this->label($sourceOut),
            $this->label($start + $in),
            $this->label($start + $out),
        );
    }

    private function label(int $frames): string
    {
        return Timecode::label($frames, $this->sequence->rate);
    }

    private function reel(Item $item): string
    {
        return $item->source->reel === null ? ShortReels::NONE : $this->reels[$item->source->reel];
    }

    /**
     * @param  array<string, mixed>  $metadata
     * @return list<string>
     */
    private static function comments(array $metadata): array
    {
        $kept = is_array($metadata['edl'] ?? null) && is_array($metadata['edl']['comments'] ?? null) ? $metadata['edl']['comments'] : [];
        $lines = [];
        foreach ($kept as $text) {
            if (is_string($text)) {
                $lines[] = rtrim('* ' . self::line($text));
            }
        }

        return $lines;
    }

    /** Foreign text kept on its own line. */
    private static function line(string $text): string
    {
        return trim((string) preg_replace('/[\x00-\x1F\x7F]+/', ' ', mb_scrub($text)));
    }
}
