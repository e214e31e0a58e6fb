<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\ClipMedia;
use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Footage\MediaRecipe;
use App\Domain\Footage\Stores;
use App\Models\Clip;
use App\Support\Problem;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Media\SoundStreams;
use Cartella\Core\Process;
use Cartella\Core\Sound\GuideChannels;
use Cartella\Core\Time\Ticks;

/**
 * A few seconds of two clips' own sound at one moment, for eye and ear: a stereo WAV, 48 kHz, 16 bits, the clip on the
 * left and the other one on the right, each the mean of its channels; silence where one does not run.
 */
final class PairSound
{
    public const RATE = 48_000;

    private const LIMIT_SECONDS = 60;

    public function __construct(private readonly Stores $stores) {}

    /**
     * @param  int  $fromTicks  of the clip's own time; may lie before its start
     * @param  int  $apartTicks  where the clip begins in the other one
     * @param  int  $samples  at 48 kHz
     *
     * @throws UnableToReadMedia if a file cannot be decoded
     * @throws Problem if no copy of a file can be reached
     */
    public function of(Clip $clip, Clip $other, int $fromTicks, int $apartTicks, int $samples): string
    {
        [$left, $leftFilter] = $this->side(0, $clip, $fromTicks, $samples);
        [$right, $rightFilter] = $this->side(1, $other, $fromTicks + $apartTicks, $samples);
        $run = Process::run(
            [
                ...Ffmpeg::command(),
                ...$left,
                ...$right,
                '-filter_complex',
                $leftFilter . '[l];' . $rightFilter . '[r];[l][r]join=inputs=2:channel_layout=stereo:map=0.0-FL|1.0-FR[out]',
                '-map',
                '[out]',
                '-c:a',
                'pcm_s16le',
                '-bitexact',
                '-f',
                'wav',
                '-',
            ],
            null,
            self::LIMIT_SECONDS,
        );
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $clip->name, $run['error']);
        }

        return $run['output'];
    }

    /** @return array{list<string>, string} what ffmpeg reads, and the filter that takes the samples */
    private function side(int $input, Clip $clip, int $fromTicks, int $samples): array
    {
        $from = Ticks::toSamples($fromTicks, self::RATE);
        $delay = min($samples, max(0, -$from));
        $from = max(0, $from);
        $length =
            $clip->duration_ticks === null
                ? $samples
                : min($samples - $delay, max(0, Ticks::toSamples($clip->duration_ticks, self::RATE) - $from));
        if ($length <= 0 || ($clip->channels ?? []) === []) {
            return [['-f', 'lavfi', '-i', 'anullsrc=r=' . self::RATE . ':cl=mono'], "[$input:a]atrim=end_sample=$samples"];
        }
        // A long file is entered at a whole second; what is left is cut by samples.
        $second = max(0, intdiv($from, self::RATE) - 1);
        $file =
            count($clip->paths()) > 1
                ? ($clip->isSound()
                    ? ClipMedia::soundFile($clip, $this->stores)
                    : MediaFolder::of($clip)->read(MediaFile::Proxy))
                : $this->stores->fileOf($clip);
        $chosen = array_map(intval(...), $clip->facts['guide_channels'] ?? []);
        $streams = MediaRecipe::streams($clip);
        // The proxy's sound is made of what is worth hearing already.
        [$stream, $channels] = match (true) {
            $file === MediaFolder::of($clip)->read(MediaFile::Proxy) => [0, [1, 2]],
            $chosen === [] => [0, range(1, max(1, $streams[0] ?? 1))],
            default => self::ofOneStream($streams, $chosen),
        };
        $mono = GuideChannels::meanFilter($channels);

        return [
            Ffmpeg::input($file, ['-ss', (string) $second]),
            sprintf(
                '[%d:a:%d]%s,aresample=%d,atrim=start_sample=%d:end_sample=%d,asetpts=PTS-STARTPTS,adelay=%dS:all=1,' .
                    'apad,atrim=end_sample=%d',
                $input,
                $stream,
                $mono,
                self::RATE,
                $from - $second * self::RATE,
                $from - $second * self::RATE + $length,
                $delay,
                $samples,
            ),
        ];
    }

    /**
     * The chosen channels of the first stream that holds any: enough to compare by.
     *
     * @param  list<int>  $streams
     * @param  non-empty-list<int>  $chosen  through all streams, from 1
     * @return array{int, non-empty-list<int>} the stream, and its channels from 1
     */
    private static function ofOneStream(array $streams, array $chosen): array
    {
        $found = [];
        foreach ($chosen as $channel) {
            [$stream, $index] = SoundStreams::at($streams, $channel);
            $found[$stream][] = $index + 1;
        }
        $first = (int) array_key_first($found);

        return [$first, $found[$first]];
    }
}
