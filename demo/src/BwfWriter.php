<?php

declare(strict_types=1);

namespace Cartella\Demo;

/**
 * Wraps raw interleaved 24-bit PCM as a broadcast wave file (EBU Tech 3285) with `bext` and `iXML` chunks, streamed.
 */
final class BwfWriter
{
    /**
     * @param  array{scene: string, take: string, tape: string, note: string, circled: bool, no_good: bool, wild: bool, uid: string,
     *     date: string, time: string, samples_since_midnight: int, tracks: list<string>}  $facts
     */
    public static function wrap(string $pcmFile, string $target, array $facts, int $sampleRate = 48000): void
    {
        $channels = count($facts['tracks']);
        $dataBytes = (int) filesize($pcmFile);
        $format = pack('vvVVvv', 1, $channels, $sampleRate, $sampleRate * $channels * 3, $channels * 3, 24);
        $chunks =
            self::chunk('bext', self::bext($facts)) . self::chunk('iXML', self::ixml($facts, $sampleRate)) . self::chunk('fmt ', $format);
        $out = fopen($target, 'wb');
        fwrite(
            $out,
            'RIFF' . pack('V', 4 + strlen($chunks) + 8 + $dataBytes + ($dataBytes % 2)) . 'WAVE' . $chunks . 'data' . pack('V', $dataBytes),
        );
        $in = fopen($pcmFile, 'rb');
        stream_copy_to_stream($in, $out);
        fclose($in);
        if ($dataBytes % 2 === 1) {
            fwrite($out, "\0");
        }
        fclose($out);
    }

    private static function chunk(string $name, string $content): string
    {
        return $name . pack('V', strlen($content)) . $content . (strlen($content) % 2 === 1 ? "\0" : '');
    }

    /** @param  array<string, mixed>  $facts */
    private static function bext(array $facts): string
    {
        return pack('a256a32a32a10a8', $facts['note'], 'Cartella demo', $facts['uid'], $facts['date'], $facts['time']) .
            pack('P', $facts['samples_since_midnight']) .
            pack('v', 1) .
            str_repeat("\0", 64 + 190) .
            'A=PCM,F=48000,W=24,M=multi,T=demo recorder' .
            "\r\n";
    }

    /** @param  array<string, mixed>  $facts */
    private static function ixml(array $facts, int $sampleRate): string
    {
        $xml = new \XMLWriter();
        $xml->openMemory();
        $xml->startDocument('1.0', 'UTF-8');
        $xml->startElement('BWFXML');
        foreach (
            [
                'IXML_VERSION' => '2.10',
                'PROJECT' => 'Low Water',
                'SCENE' => $facts['scene'],
                'TAKE' => $facts['take'],
                'TAPE' => $facts['tape'],
                'NOTE' => $facts['note'],
                'CIRCLED' => $facts['circled'] ? 'TRUE' : 'FALSE',
                'NO_GOOD' => $facts['no_good'] ? 'TRUE' : 'FALSE',
                'WILD_TRACK' => $facts['wild'] ? 'TRUE' : 'FALSE',
                'FILE_UID' => $facts['uid'],
            ]
            as $name => $value
        ) {
            $xml->writeElement($name, $value);
        }
        $xml->startElement('SPEED');
        foreach (
            [
                'MASTER_SPEED' => '25/1',
                'CURRENT_SPEED' => '25/1',
                'TIMECODE_RATE' => '25/1',
                'TIMECODE_FLAG' => 'NDF',
                'TIMESTAMP_SAMPLE_RATE' => (string) $sampleRate,
                'TIMESTAMP_SAMPLES_SINCE_MIDNIGHT_HI' => (string) ($facts['samples_since_midnight'] >> 32),
                'TIMESTAMP_SAMPLES_SINCE_MIDNIGHT_LO' => (string) ($facts['samples_since_midnight'] & 0xffffffff),
            ]
            as $name => $value
        ) {
            $xml->writeElement($name, $value);
        }
        $xml->endElement();
        $xml->startElement('TRACK_LIST');
        $xml->writeElement('TRACK_COUNT', (string) count($facts['tracks']));
        foreach ($facts['tracks'] as $index => $name) {
            $xml->startElement('TRACK');
            $xml->writeElement('CHANNEL_INDEX', (string) ($index + 1));
            $xml->writeElement('INTERLEAVE_INDEX', (string) ($index + 1));
            $xml->writeElement('NAME', $name);
            $xml->endElement();
        }
        $xml->endElement();
        $xml->endElement();

        return $xml->outputMemory();
    }
}
