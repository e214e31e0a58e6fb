<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Tasks\TaskLock;
use App\Domain\Tasks\TaskLost;
use App\Models\Clip;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Media\FrameMap;
use Cartella\Core\Media\Peaks;
use Cartella\Core\Process;
use Cartella\Core\Sound\GuideChannels;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Sound\Ltc;
use Cartella\Core\Time\Ticks;

/**
 * What the application shows and hears of a clip, from one decode of its picture and one of its sound ({@see MediaRecipe}):
 * proxies, three pictures (first, at the slate, middle), every channel of its sound, waveform peaks, and the 8 kHz guide
 * sound that line-up compares.
 */
final class ClipMedia
{
    /** Changes whenever a clip's media were made anew, so that a browser may keep what it has got. */
    public static function version(Clip $clip): string
    {
        return (string) ($clip->proxied_at->timestamp ?? 0);
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
        $streams = $clip->isStill() ? [] : MediaRecipe::streams($clip);
        if ($clip->isSound() && $streams === []) {
            throw UnableToReadMedia::program('ffmpeg', $file, 'it has no sound');
        }
        $peaks = $streams === [] ? null : new Peaks(array_sum($streams), (int) $clip->sample_rate);
        try {
            $command = [...Ffmpeg::command(), ...self::input($links, $files)];
            $sound = function () use ($peaks, $command, $clip, $folder, $media, $file): array {
                if ($peaks === null) {
                    return ['status' => 0, 'error' => ''];
                }
                $run = Process::run([...$command, ...MediaRecipe::sound($clip, $folder)], $peaks->feed(...), 6 * 3600);
                if ($run['status'] === 0) {
                    $peaks->finish($media->write(MediaFile::Peaks));
                    $this->judgeChannels($clip, $file, $folder . '/guide.all.part', $peaks->steadyChannels());
                }

                return $run;
            };
            $before = $clip->start_ticks;
            // Picture and sound are decoded once each, side by side: what one process scales, encodes and writes, it does in turn.
            $runs = $clip->isSound()
                ? [$sound()]
                : [
                    ($picture = Process::beside(
                        [
                            ...$command,
                            ...$clip->isStill() ? MediaRecipe::still($clip, $media, $folder) : MediaRecipe::picture($clip, $folder),
                        ],
                        $sound,
                        6 * 3600,
                    )),
                    $picture['meanwhile'],
                ];
        } finally {
            self::removeLinks($links);
        }
        foreach ($runs as $run) {
            if ($run['status'] !== 0) {
                throw UnableToReadMedia::program('ffmpeg', $file, $run['error']);
            }
        }
        $made = [
            'proxy.part.mp4' => [MediaFile::Proxy, 0],
            'small.part.mp4' => [MediaFile::Small, 0],
        ];
        for ($channel = 1; $channel <= array_sum($streams); $channel++) {
            $made["channel-$channel.part.mp4"] = [MediaFile::Channel, $channel];
        }
        foreach ($made as $temporary => [$final, $channel]) {
            if (is_file($folder . '/' . $temporary)) {
                rename($folder . '/' . $temporary, $media->write($final, $channel));
            }
        }
        if (($clip->facts['variable_rate'] ?? false) === true && $clip->rate() !== null && count($files) === 1) {
            file_put_contents($media->write(MediaFile::Frames), FrameMap::ofFile($file, $clip->rate(), (int) $clip->frames)->toBytes());
        }
        $heard = array_map(static fn(array $channel): int => (int) $channel['index'], $clip->worthHearing());
        $isSome = count($heard) < array_sum($streams);
        if ($clip->isPicture() && $streams !== [] && ($isSome || $clip->start_ticks !== $before)) {
            $this->dressAgain($clip, $isSome ? $heard : null);
        }
        $media->dropOld();
        $media->keep();
        $clip->update(['proxied_at' => now(), 'media_recipe' => MediaFile::RECIPE]);
    }

    /**
     * Says which channels are worth hearing, and makes the guide of them.
     *
     * @param  string  $all  8 kHz samples of all channels; they go
     * @param  list<int>  $steady  channels that may carry timecode
     */
    private function judgeChannels(Clip $clip, string $file, string $all, array $steady): void
    {
        $streams = MediaRecipe::streams($clip);
        $judged = GuideChannels::of($all, array_sum($streams))->withTimecode($this->hearTimecode($clip, $file, $steady, $streams));
        $guide = MediaFolder::of($clip)->write(MediaFile::Guide);
        $chosen = $judged->chosen();
        GuideTrack::mix($all, array_sum($streams), $chosen, $guide);
        @unlink($all);
        GuideTrack::ofFile($guide)->keepShape();
        $clip->facts = ['channel_kinds' => array_column($judged->kinds, 'value'), 'guide_channels' => $chosen] + ($clip->facts ?? []);
    }

    /**
     * Timecode that was recorded as sound is there because it is the clock that all devices share: it becomes the clip's
     * own, and what the file said stays beside it.
     *
     * @param  list<int>  $channels  that may carry it
     * @param  list<int>  $streams  channels of each
     * @return list<int> those that do
     */
    private function hearTimecode(Clip $clip, string $file, array $channels, array $streams): array
    {
        $found = [];
        foreach ($channels as $channel) {
            $heard = Ltc::isLikely($file, $channel, $streams, (int) $clip->duration_ticks) ? Ltc::ofFile($file, $channel, $streams) : null;
            if ($heard === null) {
                continue;
            }
            $found[] = $channel;
            if (count($found) > 1) {
                continue;
            }
            $clip->facts =
                [
                    'ltc' => [
                        'channel' => $channel,
                        'rate' => $heard->rate->label(),
                        'first' => $heard->first,
                        'last' => $heard->last,
                        'start_ticks' => $heard->startTicks,
                        'file_ticks' => $clip->facts['ltc']['file_ticks'] ?? $clip->start_ticks,
                        'file_source' => $clip->facts['ltc']['file_source'] ?? ($clip->facts['start_source'] ?? null),
                    ],
                    'start_source' => 'ltc',
                ] +
                ($clip->facts ?? []);
            $clip->start_ticks = $heard->startTicks;
        }

        return $found;
    }

    /**
     * The proxy's timecode track says what the clip says now, and timecode or hum is not heard on it; its pictures stay as
     * they are.
     *
     * @param  list<int>|null  $heard  channels; null leaves the sound
     */
    private function dressAgain(Clip $clip, ?array $heard): void
    {
        $media = MediaFolder::of($clip);
        $temporary = $media->work() . '/proxy.part.mp4';
        $command = [...Ffmpeg::command(), ...Ffmpeg::input($media->read(MediaFile::Proxy))];
        foreach ($heard ?? [] as $channel) {
            array_push($command, ...Ffmpeg::input($media->read(MediaFile::Channel, $channel)));
        }
        $inputs = implode('', array_map(static fn(int $number): string => "[$number:a]", range(1, max(1, count($heard ?? [])))));
        array_push(
            $command,
            ...match (true) {
                $heard === null => ['-map', '0:v', '-map', '0:a?', '-c', 'copy'],
                $heard === [] => ['-map', '0:v', '-c', 'copy'],
                default => [
                    ...['-filter_complex', $inputs . 'amix=inputs=' . count($heard) . ',pan=stereo|c0=c0|c1=c0[heard]'],
                    ...['-map', '0:v', '-map', '[heard]', '-c:v', 'copy', '-c:a', 'aac', '-b:a', '128k', '-ar', '48000'],
                ],
            },
            ...MediaRecipe::timecode($clip),
            ...[$temporary],
        );
        $run = Process::run($command, null, 3600);
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $media->read(MediaFile::Proxy), $run['error']);
        }
        rename($temporary, $media->write(MediaFile::Proxy));
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
}
