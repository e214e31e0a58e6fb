<?php

declare(strict_types=1);

namespace Cartella\Core\Exchange;

use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;

/**
 * Writes the cut list that the trade exchanges as plain text (SMPTE ST 258 family).
 *
 * Cuts only: the first picture track, then sound tracks as `A`, `A2`…. Times are labels at the sequence's rate; source
 * and record last the same count of frames. Reels longer than 8 characters are shortened and written out in a note.
 * Lines end in CR LF. The same sequence gives the same bytes.
 */
final class EdlWriter
{
    public const EVENTS_PER_FILE = 999;

    /** @return non-empty-list<string> one text per file: a further one begins after 999 events */
    public static function write(Sequence $sequence): array
    {
        $events = self::events($sequence);
        $files = [];
        foreach (array_chunk($events, self::EVENTS_PER_FILE) ?: [[]] as $index => $chunk) {
            $lines = [
                'TITLE: ' . self::line($sequence->title) . ($index === 0 ? '' : ' ' . ($index + 1)),
                'FCM: ' . ($sequence->rate->dropFrame ? 'DROP FRAME' : 'NON-DROP FRAME'),
                '',
            ];
            foreach ($chunk as $number => [$channel, $item]) {
                array_push($lines, ...self::event($number + 1, $channel, $item, $sequence));
            }
            $files[] = implode("\r\n", $lines) . "\r\n";
        }

        return $files;
    }

    /** @return list<array{string, Item}> */
    private static function events(Sequence $sequence): array
    {
        $events = [];
        $sound = 0;
        $hasPicture = false;
        foreach ($sequence->tracks as $track) {
            if ($track->kind === TrackKind::Picture && $hasPicture) {
                continue; // the form has one picture channel
            }
            $hasPicture = $hasPicture || $track->kind === TrackKind::Picture;
            $channel = $track->kind === TrackKind::Picture ? 'V' : (++$sound === 1 ? 'A' : 'A' . $sound);
            foreach (self::enabled($track) as $item) {
                $events[] = [$channel, $item];
            }
        }
        // Stable, so that picture stands before the sound of the same moment.
        usort($events, static fn(array $x, array $y): int => $x[1]->recordStartTicks <=> $y[1]->recordStartTicks);

        return $events;
    }

    /** @return list<Item> */
    private static function enabled(Track $track): array
    {
        return array_values(array_filter($track->items, static fn(Item $item): bool => $item->enabled));
    }

    /** @return list<string> */
    private static function event(int $number, string $channel, Item $item, Sequence $sequence): array
    {
        $rate = $sequence->rate;
        $in = Ticks::toFrames($sequence->startTicks + $item->recordStartTicks, $rate);
        $out = Ticks::toFrames($sequence->startTicks + $item->recordEndTicks(), $rate);
        $sourceIn = Ticks::toFrames($item->source->startTicks + $item->sourceStartTicks, $rate);
        $reel = $item->source->reel ?? $item->source->name;
        $short = self::reel($reel);
        $lines = [
            sprintf(
                '%03d  %-8s %-5s C        %s %s %s %s',
                $number,
                $short,
                $channel,
                Timecode::label($sourceIn, $rate),
                Timecode::label($sourceIn + $out - $in, $rate),
                Timecode::label($in, $rate),
                Timecode::label($out, $rate),
            ),
        ];
        $lines[] = '* FROM CLIP NAME: ' . self::line($item->name);
        if ($item->source->path !== null) {
            $lines[] = '* SOURCE FILE: ' . self::line(basename($item->source->path));
        }
        if ($short !== $reel) {
            $lines[] = '* REEL: ' . self::line($reel);
        }
        if ($item->look !== null) {
            $lines[] = '* ASC_SOP ' . $item->look->sop();
            $lines[] = '* ASC_SAT ' . Cdl::number($item->look->saturation);
        }
        foreach ($item->markers as $marker) {
            $at = Ticks::toFrames($sequence->startTicks + $item->recordStartTicks + $marker->atTicks, $rate);
            $lines[] = sprintf(
                '* LOC: %s %-7s %s',
                Timecode::label($at, $rate),
                'GREEN',
                self::line(trim($marker->name . ' ' . $marker->note)),
            );
        }

        return $lines;
    }

    private static function reel(string $reel): string
    {
        $plain = (string) preg_replace('/[^A-Za-z0-9_.-]/', '_', $reel);

        return $plain === '' ? 'AX' : substr($plain, 0, 8);
    }

    /** Foreign text kept on its own line. */
    private static function line(string $text): string
    {
        return trim((string) preg_replace('/[\x00-\x1F\x7F]+/', ' ', mb_scrub($text)));
    }
}
