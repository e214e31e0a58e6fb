<?php

declare(strict_types=1);

namespace Cartella\Core\Media;

/** Names of sound channels: a recorder's track list, else the order of the speaker layout, else `Ch 1`…. */
final class ChannelNames
{
    /** ffmpeg's layout names to the order in which the channels lie. */
    private const LAYOUTS = [
        'stereo' => ['L', 'R'],
        '2.1' => ['L', 'R', 'LFE'],
        '3.0' => ['L', 'R', 'C'],
        'quad' => ['L', 'R', 'Ls', 'Rs'],
        '4.0' => ['L', 'R', 'C', 'Cs'],
        '5.0' => ['L', 'R', 'C', 'Ls', 'Rs'],
        '5.0(side)' => ['L', 'R', 'C', 'Ls', 'Rs'],
        '5.1' => ['L', 'R', 'C', 'LFE', 'Ls', 'Rs'],
        '5.1(side)' => ['L', 'R', 'C', 'LFE', 'Ls', 'Rs'],
        '7.1' => ['L', 'R', 'C', 'LFE', 'Lrs', 'Rrs', 'Ls', 'Rs'],
    ];

    /** Speaker bits of WAVE_FORMAT_EXTENSIBLE in the order of the mask (Microsoft, KSAUDIO_CHANNEL_CONFIG). */
    private const MASK = [
        0x1 => 'L',
        0x2 => 'R',
        0x4 => 'C',
        0x8 => 'LFE',
        0x10 => 'Ls',
        0x20 => 'Rs',
        0x40 => 'Lc',
        0x80 => 'Rc',
        0x100 => 'Cs',
        0x200 => 'Ls',
        0x400 => 'Rs',
    ];

    /** @return list<array{index: int, name: string, function: ?string}> index from 1 */
    public static function ofWav(WavFile $wav): array
    {
        $names = self::ofMask($wav->format->channelMask, $wav->format->channels);
        $channels = self::numbered($names);
        foreach ($wav->ixml->tracks ?? [] as $track) {
            $at = $track['interleave'] - 1;
            if (isset($channels[$at])) {
                $channels[$at]['name'] = $track['name'] ?? $channels[$at]['name'];
                $channels[$at]['function'] = $track['function'];
            }
        }

        return array_values($channels);
    }

    /** @return list<array{index: int, name: string, function: ?string}> index from 1 */
    public static function ofLayout(string $layout, int $count): array
    {
        $names = self::LAYOUTS[$layout] ?? [];

        return self::numbered(count($names) === $count ? $names : self::plain($count));
    }

    /**
     * Which of a recorder's channels are heard when nobody has chosen: its own mix if it has one, else all of them.
     *
     * @param  list<array{index: int, name: string}>  $channels
     * @return list<int> indexes
     */
    public static function heard(array $channels): array
    {
        $mixes = array_values(
            array_filter($channels, static fn(array $channel): bool => preg_match('/\Amix/i', (string) $channel['name']) === 1),
        );

        return array_column($mixes === [] ? $channels : [$mixes[0]], 'index');
    }

    /** @return list<string> */
    private static function ofMask(int $mask, int $count): array
    {
        $names = [];
        foreach (self::MASK as $bit => $name) {
            if (($mask & $bit) !== 0) {
                $names[] = $name;
            }
        }

        return count($names) === $count && $count > 1 ? $names : self::plain($count);
    }

    /** @return list<string> */
    private static function plain(int $count): array
    {
        return array_map(static fn(int $number): string => 'Ch ' . $number, $count > 0 ? range(1, $count) : []);
    }

    /**
     * @param  list<string>  $names
     * @return list<array{index: int, name: string, function: ?string}>
     */
    private static function numbered(array $names): array
    {
        $channels = [];
        foreach ($names as $at => $name) {
            $channels[] = ['index' => $at + 1, 'name' => $name, 'function' => null];
        }

        return $channels;
    }
}
