<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Tasks\TaskLock;
use App\Domain\Tasks\TaskLost;
use App\Models\Clip;
use Cartella\Core\Media\ChannelNames;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Media\Peaks;
use Cartella\Core\Process;
use Cartella\Core\Sound\ClockRate;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Sound\Ltc;
use Cartella\Core\Time\Ticks;

/**
 * What the application shows and hears of a clip, all from one decode of its file: proxy, three pictures (first, at the
 * slate, middle), waveform peaks, and the 8 kHz guide sound that line-up compares.
 */
final class ClipMedia
{
    /** Frames between key frames of a proxy: short, so that a seek decodes little. */
    private const GROUP = 12;

    /** Seconds into a clip at which a slate is usually held up. */
    private const SLATE_SECONDS = 1;

    /** Changes whenever a clip's media were made anew, so that a browser may keep what it has got. */
    public static function version(Clip $clip): string
    {
        return (string) max($clip->proxied_at->timestamp ?? 0, $clip->sound_synced_at->timestamp ?? 0);
    }

    /** Seconds that one worker waits for another that makes media of the same clip. */
    private const WAIT = 3;

    /**
     * @param  non-empty-list<string>  $files  of the recording, in their order
     *
     * @throws UnableToReadMedia if ffmpeg cannot decode them
     * @throws TaskLost if another worker makes media of the clip
     */
    public function make(Clip $clip, array $files): void
    {
        TaskLock::while('media.' . $clip->id, fn() => $this->makeAlone($clip, $files), self::WAIT);
    }

    /** @param  non-empty-list<string>  $files */
    private function makeAlone(Clip $clip, array $files): void
    {
        $file = $files[0];
        if (!in_array($clip->kind, ['picture', 'sound', 'still'], true)) {
            return;
        }
        $media = MediaFolder::of($clip);
        $folder = $media->work();
        if (count($files) > 1 && $clip->isSound()) {
            $file = $this->join($clip, $files);
            $files = [$file];
        }
        $links = $folder . '/parts-' . bin2hex(random_bytes(4));
        $command = [...Ffmpeg::command(), ...self::input($links, $files)];
        $channels = (int) ($clip->facts['audio_streams'][0] ?? 0);
        array_push(
            $command,
            ...match ($clip->kind) {
                'picture' => $this->picture($clip, $folder, $channels),
                'sound' => [
                    '-map',
                    '0:a:0',
                    '-af',
                    self::listening($clip),
                    '-c:a',
                    'aac',
                    '-b:a',
                    '160k',
                    '-ar',
                    '48000',
                    '-movflags',
                    '+faststart',
                    $folder . '/proxy.part.mp4',
                ],
                default => [
                    '-map',
                    '0:v:0',
                    '-frames:v',
                    '1',
                    '-vf',
                    'scale=320:-2',
                    $media->write(MediaFile::FirstPicture),
                    '-map',
                    '0:v:0',
                    '-frames:v',
                    '1',
                    '-vf',
                    "scale='min(1280,iw)':-2",
                    $media->write(MediaFile::Still),
                ],
            },
        );
        $peaks = null;
        if ($channels > 0 && $clip->kind !== 'still') {
            array_push(
                $command,
                '-map',
                '0:a:0',
                '-af',
                GuideTrack::monoFilter($channels),
                '-ar',
                (string) GuideTrack::SAMPLE_RATE,
                '-f',
                's16le',
                $folder . '/guide.part',
            );
            array_push($command, '-map', '0:a:0', '-f', 's16le', '-');
            $peaks = new Peaks($channels, (int) $clip->sample_rate);
        }
        try {
            $run = Process::run($command, $peaks === null ? null : $peaks->feed(...), 6 * 3600);
        } finally {
            self::removeLinks($links);
        }
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $file, $run['error']);
        }
        $peaks?->finish($media->write(MediaFile::Peaks));
        foreach (['guide.part' => MediaFile::Guide, 'proxy.part.mp4' => MediaFile::Proxy] as $temporary => $final) {
            if (is_file($folder . '/' . $temporary)) {
                rename($folder . '/' . $temporary, $media->write($final));
            }
        }
        if ($peaks !== null) {
            GuideTrack::ofFile($media->read(MediaFile::Guide))->keepShape();
            $this->hearTimecode($clip, $file, $peaks->steadyChannels());
        }
        $media->keep();
        $clip->update(['proxied_at' => now()]);
    }

    /**
     * Timecode that was recorded as sound is there because it is the clock that all devices share: it becomes the clip's
     * own, and what the file said stays beside it.
     *
     * @param  list<int>  $channels  that may carry it
     */
    private function hearTimecode(Clip $clip, string $file, array $channels): void
    {
        foreach ($channels as $channel) {
            $heard = Ltc::ofFile($file, $channel);
            if ($heard !== null) {
                $clip->facts =
                    [
                        'ltc' => [
                            'channel' => $channel,
                            'rate' => $heard->rate->label(),
                            'first' => $heard->first,
                            'last' => $heard->last,
                            'start_ticks' => $heard->startTicks,
                            'file_ticks' => $clip->start_ticks,
                            'file_source' => $clip->facts['start_source'] ?? null,
                        ],
                        'start_source' => 'ltc',
                    ] +
                    ($clip->facts ?? []);
                $clip->start_ticks = $heard->startTicks;

                return;
            }
        }
    }

    /** The recorder's sound in one file: the recording's own, or what was joined of its parts. */
    public static function soundFile(Clip $clip, Stores $stores): string
    {
        $media = MediaFolder::of($clip);

        return count($clip->paths()) > 1 && $media->has(MediaFile::Joined) ? $media->read(MediaFile::Joined) : $stores->fileOf($clip);
    }

    /**
     * Sound that a recorder wrote in several files, as one beside the proxy: tracks side by side, or one part after the
     * other, sample for sample.
     *
     * @param  non-empty-list<string>  $files
     */
    private function join(Clip $clip, array $files): string
    {
        $media = MediaFolder::of($clip);
        $folder = $media->work();
        $isSplit = ($clip->facts['layout'] ?? '') === 'split';
        $command = Ffmpeg::command();
        $labels = '';
        foreach ($files as $number => $file) {
            array_push($command, ...Ffmpeg::input($file));
            $labels .= "[$number:a:0]";
        }
        $run = Process::run(
            [
                ...$command,
                '-filter_complex',
                $labels . ($isSplit ? 'amerge=inputs=' . count($files) : 'concat=n=' . count($files) . ':v=0:a=1') . '[sound]',
                '-map',
                '[sound]',
                '-c:a',
                'pcm_s24le',
                '-rf64',
                'auto',
                '-write_bext',
                '1',
                '-metadata',
                'time_reference=' . Ticks::toSamples((int) $clip->start_ticks, (int) $clip->sample_rate),
                '-f',
                'wav',
                $folder . '/joined.part',
            ],
            null,
            6 * 3600,
        );
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $files[0], $run['error']);
        }
        rename($folder . '/joined.part', $media->write(MediaFile::Joined));

        return $media->read(MediaFile::Joined);
    }

    /**
     * What ffmpeg reads: a file, or the parts of a span one after the other.
     *
     * @param  string  $links  a folder that is made where there are several, and removed by {@see removeLinks}
     * @param  non-empty-list<string>  $files
     * @return list<string>
     */
    private static function input(string $links, array $files): array
    {
        if (count($files) === 1) {
            return Ffmpeg::input($files[0]);
        }
        if (!@mkdir($links)) {
            throw UnableToReadMedia::missing($links);
        }

        return Ffmpeg::inputOfParts($files, $links);
    }

    private static function removeLinks(string $links): void
    {
        foreach (is_dir($links) ? array_diff(scandir($links) ?: [], ['.', '..']) : [] as $name) {
            unlink($links . '/' . $name);
        }
        @rmdir($links);
    }

    /** @return list<string> */
    private function picture(Clip $clip, string $folder, int $channels): array
    {
        $rate = $clip->rate();
        $frames = max(1, (int) $clip->frames);
        $perSecond = $rate === null ? 25 : $rate->nominal;
        $at = [min(2, $frames - 1), min(self::SLATE_SECONDS * $perSecond, $frames - 1), intdiv($frames, 2)];
        $scale = $rate === null ? 25_000 : ($rate->num >= 10_000 ? $rate->num : $rate->num * 1000);
        $select = implode('+', array_map(static fn(int $frame): string => "eq(n,$frame)", array_values(array_unique($at))));

        return [
            '-map',
            '0:v:0',
            ...$channels > 0 ? ['-map', '0:a:0', '-c:a', 'aac', '-b:a', '128k', '-ac', '2', '-ar', '48000'] : [],
            '-vf',
            "scale='trunc(min(960,iw)/2)*2':-2",
            '-pix_fmt',
            'yuv420p',
            '-c:v',
            'libx264',
            '-preset',
            'ultrafast',
            '-crf',
            '21',
            '-bf',
            '0',
            '-g',
            (string) self::GROUP,
            '-keyint_min',
            (string) self::GROUP,
            '-sc_threshold',
            '0',
            '-fps_mode',
            'cfr',
            ...$rate === null ? [] : ['-r', "$rate->num/$rate->den"],
            '-video_track_timescale',
            (string) $scale,
            '-map_metadata',
            '-1',
            '-write_tmcd',
            '0',
            '-movflags',
            '+faststart',
            $folder . '/proxy.part.mp4',
            '-map',
            '0:v:0',
            '-vf',
            "select='$select',scale=320:-2",
            '-fps_mode',
            'passthrough',
            '-q:v',
            '4',
            $folder . '/thumb-%d.jpg',
        ];
    }

    /**
     * An ffmpeg filter that makes two ears of a recorder's tracks: those that were chosen, else its own mix if it has one,
     * else all of them.
     *
     * @param  array<int, array{on: bool, gain_db: float}>|null  $chosen  by the channel's number
     */
    public static function listening(Clip $clip, ?array $chosen = null): string
    {
        $channels = $clip->channels ?? [];
        $count = max(1, count($channels));
        if ($chosen !== null) {
            $parts = [];
            foreach ($channels as $channel) {
                $choice = $chosen[$channel['index']] ?? null;
                if ($choice !== null && $choice['on']) {
                    $parts[] = sprintf('%.4F*c%d', 10 ** ($choice['gain_db'] / 20), $channel['index'] - 1);
                }
            }
            $sum = $parts === [] ? '0*c0' : implode('+', $parts);

            return "pan=stereo|c0=$sum|c1=$sum,alimiter=limit=0.95:level=disabled";
        }
        $heard = ChannelNames::heard($channels);
        if (count($heard) === 1) {
            $index = $heard[0] - 1;

            return "pan=stereo|c0=c$index|c1=c$index";
        }
        if ($count === 2) {
            return 'pan=stereo|c0=c0|c1=c1';
        }
        // Speech is seldom on all tracks at once, so the sum is taken at twice the mean and limited.
        $parts = implode(
            '+',
            array_map(static fn(int $index): string => sprintf('%.4f*c%d', min(1.0, 2 / $count), $index), range(0, $count - 1)),
        );

        return "pan=stereo|c0=$parts|c1=$parts,alimiter=limit=0.95";
    }

    /**
     * The proxy's pictures with the recorders' sound laid under them, so that the browser keeps both on one clock.
     *
     * @param  non-empty-list<array{sound: Clip, file: string, from: int, to: int, offset: int, drift: float}>  $pieces  which recording
     *     lies under which stretch of the picture (ticks from its first frame); `offset` is where the picture's first frame lies in
     *     the recording, below zero before its start; `drift` the parts per million by which the picture's clock is faster, where
     *     the sound is to keep step with it
     *
     * @throws UnableToReadMedia if ffmpeg cannot do it
     * @throws TaskLost if another worker makes media of the picture
     */
    public function lay(Clip $picture, array $pieces): void
    {
        TaskLock::while('media.' . $picture->id, fn() => $this->layAlone($picture, $pieces), self::WAIT);
    }

    /** @param  non-empty-list<array{sound: Clip, file: string, from: int, to: int, offset: int, drift: float}>  $pieces */
    private function layAlone(Clip $picture, array $pieces): void
    {
        $media = MediaFolder::of($picture);
        $folder = $media->work();
        $rate = 48_000;
        $length = Ticks::toSamples((int) $picture->duration_ticks, $rate);
        $inputs = $chains = [];
        foreach ($pieces as $number => $piece) {
            $sound = $piece['sound'];
            $own = (int) $sound->sample_rate;
            $from = max(0, Ticks::toSamples($piece['offset'] + $piece['from'], $own));
            // A long recording is entered at a whole second, which PCM can be exactly; what is left is cut by samples.
            $skip = strtolower(pathinfo($piece['file'], PATHINFO_EXTENSION)) === 'wav' ? intdiv($from, $own) : 0;
            $from -= $skip * $own;
            array_push($inputs, ...Ffmpeg::input($piece['file'], ['-ss', (string) $skip]));
            $end = count($pieces) === 1 ? null : $from + Ticks::toSamples($piece['to'] - $piece['from'], $own);
            $chains[] =
                sprintf('[%d:a]', $number + 1) .
                implode(
                    ',',
                    array_filter([
                        "atrim=start_sample=$from" . ($end === null ? '' : ":end_sample=$end") . ',asetpts=PTS-STARTPTS',
                        self::listening($sound, $picture->take?->listening),
                        "aresample=$rate",
                        ClockRate::filter($piece['drift'], $rate),
                        sprintf('adelay=%dS:all=1,apad,atrim=end_sample=%d', Ticks::toSamples($piece['from'], $rate), $length),
                    ]),
                ) .
                "[sound$number]";
        }
        $mixed =
            count($pieces) === 1
                ? ''
                : ';' . implode('', array_map(static fn(int $number): string => "[sound$number]", array_keys($pieces)));
        $run = Process::run(
            [
                ...Ffmpeg::command(),
                ...Ffmpeg::input($media->read(MediaFile::Proxy)),
                ...$inputs,
                '-filter_complex',
                implode(';', $chains) . ($mixed === '' ? '' : $mixed . 'amix=inputs=' . count($pieces) . ':normalize=0[sound]'),
                '-map',
                '0:v:0',
                '-c:v',
                'copy',
                '-map',
                $mixed === '' ? '[sound0]' : '[sound]',
                '-c:a',
                'aac',
                '-b:a',
                '160k',
                '-movflags',
                '+faststart',
                $folder . '/synced.part.mp4',
            ],
            null,
            3600,
        );
        if ($run['status'] !== 0) {
            @unlink($folder . '/synced.part.mp4');
            throw UnableToReadMedia::program('ffmpeg', $pieces[0]['file'], $run['error']);
        }
        rename($folder . '/synced.part.mp4', $media->write(MediaFile::Synced));
        $media->keep();
        $picture->update(['sound_synced_at' => now()]);
    }
}
