<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/**
 * The channels of a file's streams of sound, counted through from 1: cameras write a microphone into each stream as often
 * as all into one.
 */
final class SoundStreams
{
    /**
     * @param  list<int>  $streams  channels of each
     * @return array{int, int} the stream that holds a channel, from 0, and which of its channels it is, from 0
     */
    public static function at(array $streams, int $channel): array
    {
        $left = $channel - 1;
        foreach ($streams as $stream => $channels) {
            if ($left < $channels) {
                return [$stream, $left];
            }
            $left -= $channels;
        }

        return [max(0, count($streams) - 1), max(0, ($streams[count($streams) - 1] ?? 1) - 1)];
    }

    /**
     * What ffmpeg is told for the channels of all streams side by side. Each stream says only how many it has: merging looks
     * for a layout of all of them otherwise, and does not always find one.
     *
     * @param  non-empty-list<int>  $streams
     * @param  int  $rate  samples a second
     * @return string a filter graph whose last output has no name yet
     */
    public static function together(array $streams, int $rate): string
    {
        if (count($streams) === 1) {
            return '[0:a:0]' . self::fromStart($rate);
        }
        $inputs = $aligned = '';
        foreach ($streams as $stream => $channels) {
            $kept = implode('|', array_map(static fn(int $index): string => "c$index=c$index", range(0, $channels - 1)));
            $aligned .= "[0:a:$stream]" . self::fromStart($rate) . ",pan={$channels}c|$kept" . "[a$stream];";
            $inputs .= "[a$stream]";
        }

        return $aligned . $inputs . 'amerge=inputs=' . count($streams);
    }

    /** A filter by which sound begins with its file, and what a stream lacks is silence. */
    public static function fromStart(int $rate): string
    {
        return "aresample=$rate:async=1:first_pts=0";
    }
}
