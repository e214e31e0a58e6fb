<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Media\SoundStreams;
use Cartella\Core\Process;
use Cartella\Core\Time\Ticks;

/** Where the channels of a sound are: all in one file, or each in a file of its own. Channels count from 1. */
final readonly class SoundSource
{
    /** Amplitude of the noise under what is recognised: about −50 dBFS. */
    private const FLOOR = '0.006';

    /**
     * @param  array<int, string>  $files  by channel
     * @param  list<int>  $streams  channels of each stream, where they lie in one file
     */
    private function __construct(private array $files, private array $streams) {}

    /** @param  non-empty-list<int>  $streams  channels of each stream */
    public static function ofFile(string $path, array $streams): self
    {
        return new self(array_fill(1, array_sum($streams), $path), $streams);
    }

    /** @param  array<int, string>  $files  a file of one channel each, by channel */
    public static function ofChannels(array $files): self
    {
        return new self($files, []);
    }

    /** @return list<int> */
    public function channels(): array
    {
        return array_keys($this->files);
    }

    /**
     * A stretch of some channels as samples: 16-bit little-endian, mono, a file for each.
     *
     * @param  non-empty-list<int>  $channels
     * @param  string  $folder  in which they are written
     * @param  int  $rate  samples a second
     * @return array<int, string> by channel
     *
     * @throws UnableToReadMedia if ffmpeg cannot decode it
     */
    public function decode(array $channels, int $fromTicks, int $toTicks, string $folder, int $rate): array
    {
        $seconds = static fn(int $ticks): string => sprintf('%.6F', $ticks / Ticks::PER_SECOND);
        $stretch = ['-ss', $seconds($fromTicks), '-t', $seconds($toTicks - $fromTicks)];
        $written = [];
        $command = Ffmpeg::command();
        foreach ($channels as $channel) {
            $written[$channel] = "$folder/channel-$channel.raw";
        }
        $as = ['-ar', (string) $rate, '-ac', '1', '-f', 's16le'];
        if ($this->streams !== []) {
            array_push($command, ...Ffmpeg::input($this->files[1], $stretch));
            foreach ($written as $channel => $path) {
                [$stream, $index] = SoundStreams::at($this->streams, $channel);
                array_push(
                    $command,
                    '-filter_complex',
                    self::withFloor("0:a:$stream", "pan=mono|c0=c$index,", $channel, $rate),
                    '-map',
                    "[out$channel]",
                    ...$as,
                    ...[$path],
                );
            }
        } else {
            foreach (array_values($channels) as $channel) {
                array_push($command, ...Ffmpeg::input($this->files[$channel], $stretch));
            }
            foreach (array_values($channels) as $input => $channel) {
                array_push(
                    $command,
                    '-filter_complex',
                    self::withFloor("$input:a:0", '', $channel, $rate),
                    '-map',
                    "[out$channel]",
                    ...$as,
                    ...[$written[$channel]],
                );
            }
        }
        $run = Process::run($command, null, 3600);
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', (string) ($this->files[$channels[0]] ?? ''), $run['error']);
        }

        return $written;
    }

    /**
     * A channel over a floor of noise that hardly anybody hears, always the same: a recogniser that learned from recordings takes digital
     * silence between two words for something that is said. What lies under every voice goes: wind, rumble and hum.
     */
    private static function withFloor(string $input, string $filter, int $channel, int $rate): string
    {
        [$voice, $noise, $out] = ["[voice{$channel}]", "[noise{$channel}]", "[out{$channel}]"];

        return sprintf('[%s]%shighpass=f=150,aresample=%d%s;', $input, $filter, $rate, $voice) .
            sprintf('anoisesrc=r=%d:a=%s:c=white:seed=%d%s;', $rate, self::FLOOR, $channel, $noise) .
            $voice .
            $noise .
            "amix=inputs=2:normalize=0:duration=first$out";
    }
}
