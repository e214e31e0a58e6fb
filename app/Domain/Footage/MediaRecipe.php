<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Models\Clip;
use App\Support\Clock;
use Cartella\Core\Media\FrameMap;
use Cartella\Core\Media\SoundStreams;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;

/**
 * How ffmpeg is told to make what players show and hear, all of it from one decode: the proxy (H.264 at the recording's own constant
 * rate, camera sound, timecode track), the same 320 wide, every channel of sound by itself (FLAC, 48 kHz, whose first sample is the
 * clip's start), pictures, guide sound and samples for the peaks. A change of it counts {@see MediaFile::RECIPE} up.
 */
final class MediaRecipe
{
    /** Frames between key frames of a proxy: short, so that a seek decodes little. Groups are closed. */
    public const GROUP = 12;

    /** Seconds into a clip at which a slate is usually held up. */
    private const SLATE_SECONDS = 1;

    private const SAMPLE_RATE = 48_000;

    /** Bytes of a second of pictures in both sizes, and of a second of one channel with its peaks and guide; nearly always fewer. */
    private const PICTURE_BYTES = 700_000;

    private const CHANNEL_BYTES = 90_000;

    /** Room for what is made of so many ticks; at least a little. */
    public static function bytes(int $ticks, bool $isPicture, int $channels): int
    {
        return (int) (($ticks / Ticks::PER_SECOND + 1) * (($isPicture ? self::PICTURE_BYTES : 0) + $channels * self::CHANNEL_BYTES));
    }

    /** @return list<string> proxy, small proxy and three pictures of a clip, into a folder */
    public static function picture(Clip $clip, string $folder): array
    {
        $rate = $clip->rate();
        $frames = max(1, (int) $clip->frames);
        $perSecond = $rate === null ? 25 : $rate->nominal;
        $at = [min(2, $frames - 1), min(self::SLATE_SECONDS * $perSecond, $frames - 1), intdiv($frames, 2)];
        $select = implode('+', array_map(static fn(int $frame): string => "eq(n,$frame)", array_values(array_unique($at))));
        $streams = self::streams($clip);
        $sound = match (count($streams)) {
            0 => [],
            1 => ['-map', '0:a:0', '-ac', '2'],
            default => [
                '-filter_complex',
                SoundStreams::together($streams, self::SAMPLE_RATE) . ',' . self::mean(array_sum($streams)) . '[camera]',
                '-map',
                '[camera]',
            ],
        };

        return [
            '-filter_complex',
            '[0:v:0]' .
            self::constant($clip) .
            "split=2[large][slates];[large]scale='trunc(min(960,iw)/2)*2':-2:flags=bilinear,split=2[proxy][medium];" .
            "[medium]scale='trunc(min(320,iw)/2)*2':-2:flags=fast_bilinear[small];[slates]select='$select',scale=320:-2[pictures]",
            '-map',
            '[proxy]',
            ...$sound,
            ...$sound === [] ? [] : ['-c:a', 'aac', '-b:a', '128k', '-ar', '48000'],
            ...self::video($clip, '21'),
            ...self::timecode($clip),
            $folder . '/proxy.part.mp4',
            '-map',
            '[small]',
            ...self::video($clip, '24'),
            // So small a picture is done sooner than it is handed round.
            '-threads',
            '1',
            '-movflags',
            '+faststart',
            $folder . '/small.part.mp4',
            '-map',
            '[pictures]',
            '-fps_mode',
            'passthrough',
            '-q:v',
            '4',
            $folder . '/thumb-%d.jpg',
        ];
    }

    /** What gives pictures of a variable rate a constant one, as {@see FrameMap} says which is shown when. */
    private static function constant(Clip $clip): string
    {
        $rate = $clip->rate();

        return $rate !== null && ($clip->facts['variable_rate'] ?? false) === true
            ? sprintf(
                'fps=fps=%d/%d:round=near:start_time=0,tpad=stop=-1:stop_mode=clone,trim=end_frame=%d,',
                $rate->num,
                $rate->den,
                max(1, (int) $clip->frames),
            )
            : '';
    }

    /** @return list<string> two sizes of a still, and it as a picture that runs, in both sizes, into a folder */
    public static function still(Clip $clip, MediaFolder $media, string $folder): array
    {
        $rate = $clip->production->rate();
        // Some frames more, where a cut of another rate ends it.
        $frames = Ticks::toFrames(Clip::STILL_TICKS, $rate) + $rate->nominal;

        return [
            '-filter_complex',
            "[0:v:0]split=3[thumb][whole][one];[thumb]scale=320:-2[thumb];[whole]scale='min(1280,iw)':-2[whole];" .
            "[one]scale='trunc(min(960,iw)/2)*2':-2,format=yuv420p,loop=loop=-1:size=1,settb=$rate->den/$rate->num,setpts=N," .
            "trim=end_frame=$frames,split=2[proxy][medium];[medium]scale='trunc(min(320,iw)/2)*2':-2[small]",
            ...['-map', '[thumb]', '-frames:v', '1', '-update', '1', $media->write(MediaFile::FirstPicture)],
            ...['-map', '[whole]', '-frames:v', '1', '-update', '1', $media->write(MediaFile::Still)],
            ...['-map', '[proxy]', ...self::video($clip, '21'), '-r', "$rate->num/$rate->den", ...self::timecode($clip)],
            $folder . '/proxy.part.mp4',
            ...['-map', '[small]', ...self::video($clip, '24'), '-r', "$rate->num/$rate->den", '-movflags', '+faststart'],
            $folder . '/small.part.mp4',
        ];
    }

    /** @return list<string> every channel by itself, samples of all for the guide, and for the peaks to the standard output */
    public static function sound(Clip $clip, string $folder): array
    {
        $streams = self::streams($clip);
        $arguments = [];
        $number = 0;
        foreach ($streams as $stream => $channels) {
            for ($channel = 0; $channel < $channels; $channel++) {
                $number++;
                array_push(
                    $arguments,
                    '-map',
                    "0:a:$stream",
                    '-af',
                    "pan=mono|c0=c$channel," . SoundStreams::fromStart(self::SAMPLE_RATE),
                    '-c:a',
                    'flac',
                    '-sample_fmt',
                    's16',
                    '-compression_level',
                    '2',
                    '-strict',
                    '-2',
                    '-map_metadata',
                    '-1',
                    '-movflags',
                    '+faststart',
                    "$folder/channel-$number.part.mp4",
                );
            }
        }
        array_push($arguments, ...GuideTrack::allChannels($streams, $folder . '/guide.all.part'));
        if (count($streams) === 1) {
            return [...$arguments, '-map', '0:a:0', '-f', 's16le', '-'];
        }

        return [
            ...$arguments,
            '-filter_complex',
            SoundStreams::together($streams, (int) $clip->sample_rate) . '[all]',
            '-map',
            '[all]',
            '-f',
            's16le',
            '-',
        ];
    }

    /** @return list<string> the clip's own timecode as a track, and the roll that it lies on as its reel */
    public static function timecode(Clip $clip): array
    {
        $rate = $clip->rate();
        $label = $rate === null || $rate->nominal > 60 ? null : Clock::label($clip->start_ticks, $rate);
        $reel = $clip->card->roll ?? '';

        return [
            '-map_metadata',
            '-1',
            ...$label === null ? ['-write_tmcd', '0'] : ['-timecode', $label],
            ...$reel === '' ? [] : ['-metadata', 'reel_name=' . $reel],
            '-movflags',
            '+faststart+use_metadata_tags',
        ];
    }

    /** @return list<int> channels of each stream of sound */
    public static function streams(Clip $clip): array
    {
        return array_values(
            array_filter(array_map(intval(...), $clip->facts['audio_streams'] ?? []), static fn(int $count): bool => $count > 0),
        );
    }

    /** @return list<string> */
    private static function video(Clip $clip, string $quality): array
    {
        $rate = $clip->rate();
        $scale = $rate === null ? 25_000 : ($rate->num >= 10_000 ? $rate->num : $rate->num * 1000);

        return [
            '-pix_fmt',
            'yuv420p',
            '-c:v',
            'libx264',
            '-preset',
            'ultrafast',
            '-crf',
            $quality,
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
        ];
    }

    private static function mean(int $channels): string
    {
        $sum = implode(
            '+',
            array_map(static fn(int $index): string => sprintf('%.4F*c%d', 1 / $channels, $index), range(0, $channels - 1)),
        );

        return "pan=stereo|c0=$sum|c1=$sum";
    }
}
