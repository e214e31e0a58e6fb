<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Footage\Stores;
use App\Domain\Sequences\PicturePiece;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Domain\Sequences\SoundPiece;
use App\Domain\Tasks\Room;
use App\Domain\Tasks\TaskRun;
use App\Models\Clip;
use App\Models\Look;
use App\Models\StoredSequence;
use App\Support\Clock;
use App\Support\Problem;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Media\Probe;
use Cartella\Core\Process;
use Cartella\Core\Sound\ClockRate;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Facades\File;

/**
 * Writes a reel as one H.264 file with its sound, and the sound by itself: take by take into a folder, so that a run that was stopped or
 * killed goes on where it was, then one after the other. Every frame of the reel is a frame of the file.
 */
final readonly class ReelFile
{
    private const RATE = 48_000;

    /** Samples over which sound comes in and goes out at a cut, as players do: 3 ms. */
    private const FADE = 144;

    /** Bytes of a second of picture and sound, of what lies beside each other while it is written. */
    private const BYTES = 2_400_000;

    private const FONT = 'vendor/dompdf/dompdf/lib/fonts/DejaVuSansMono-Bold.ttf';

    public function __construct(private SequenceStore $store, private ReelShow $show, private Stores $stores, private Room $room) {}

    /**
     * @return array{message: string, frames: int, bytes: int, proxies: list<string>, tracks: list<array{part: string, name: string}>}
     *     `proxies` names takes that are shown from their
     *     proxies although the recordings were wanted
     *
     * @throws UnableToReadMedia if ffmpeg cannot do it
     * @throws Problem if a recording cannot be reached
     */
    public function write(StoredSequence $reel, TaskRun $run): array
    {
        $subject = $run->task->subject;
        $wanted = [
            'slate' => (bool) $subject['slate'],
            'timecode' => (bool) $subject['timecode'],
            'name' => (string) $subject['over'],
            'originals' => (bool) $subject['originals'],
            'height' => (int) $subject['height'],
            'width' => 0,
        ];
        $isByTrack = (bool) ($subject['tracks'] ?? false);
        $playlist = Playlist::of($reel, $this->store->read($reel, (int) $subject['step']));
        $rate = $playlist->sequence->rate;
        $wanted['width'] = self::width($playlist, $wanted['height']);
        $folder = ExportReel::folder($run->task);
        File::ensureDirectoryExists($folder);
        $seconds = intdiv($playlist->sequence->durationTicks(), Ticks::PER_SECOND) + 1;
        $this->room->need([$folder => $seconds * self::BYTES]);
        $together = ReelRecipe::of($reel)?->angles === ReelAngles::Together;
        $shown = $this->show->of($playlist);
        $chunks = self::chunks($shown, $playlist->sequence->durationTicks());
        $tracks = $isByTrack ? self::byTrack($playlist) : [];
        $each = 2 + count($tracks);
        $run->expect($each * count($chunks) + 2);
        $proxies = $pictures = $sounds = [];
        $alone = array_fill_keys(array_keys($tracks), []);
        foreach ($chunks as $number => $chunk) {
            $run->at($each * $number, now: $chunk['name']);
            $pictures[] = $file = sprintf('%s/%06d.mp4', $folder, $number);
            if ($chunk['piece'] === null) {
                self::black($chunk['length'], $rate, $wanted, $file);
            } else {
                $places = $together ? self::places($chunk['piece'], $chunk['angles']) : [self::alone($chunk['piece'])];
                if (!$this->picture($chunk['piece'], $places, $rate, $wanted, $file)) {
                    $proxies[] = $chunk['name'];
                }
            }
            $run->at($each * $number + 1, now: $chunk['name']);
            $sounds[] = $file = sprintf('%s/%06d.sound', $folder, $number);
            $this->sound($chunk, $playlist->sounds, $file);
            foreach ($tracks as $track => ['sounds' => $own]) {
                $alone[$track][] = $file = sprintf('%s/%06d.track-%d', $folder, $number, $track + 1);
                $this->sound($chunk, $own, $file);
            }
        }
        $run->at($each * count($chunks), now: 'One after the other');
        $all = "$folder/sound";
        self::joined($sounds, $all);
        $frames = $this->whole($folder, $pictures, $all, $playlist, $reel);
        foreach ($alone as $track => $files) {
            self::joined($files, "$folder/track");
            self::wav("$folder/track", sprintf('%s/track-%d.wav', $folder, $track + 1), $reel->name);
        }
        foreach ([...$pictures, ...$sounds, $all, ...array_merge(...array_values($alone)), "$folder/track"] as $file) {
            @unlink($file);
        }

        return [
            'message' => sprintf('%s is there: %s.', $subject['name'], Clock::time($playlist->sequence->durationTicks())),
            'frames' => $frames,
            'bytes' => (int) filesize("$folder/reel.mp4"),
            'proxies' => array_values(array_unique($proxies)),
            'tracks' => array_map(
                static fn(int $track, array $one): array => ['part' => 'track-' . ($track + 1), 'name' => $one['name']],
                array_keys($tracks),
                array_values($tracks),
            ),
        ];
    }

    /**
     * What is written one after the other: pieces of picture, and the holes between them and behind the last.
     *
     * @param  list<array{piece: PicturePiece, angles: list<array{clip: Clip, in: int, out: int, at: int}>}>  $shown
     * @return list<array{at: int, length: int, name: string, piece: PicturePiece|null,
     *     angles: list<array{clip: Clip, in: int, out: int, at: int}>}>
     */
    private static function chunks(array $shown, int $endTicks): array
    {
        $chunks = [];
        $at = 0;
        $hole = static fn(int $from, int $to): array => [
            'at' => $from,
            'length' => $to - $from,
            'name' => 'nothing',
            'piece' => null,
            'angles' => [],
        ];
        foreach ($shown as ['piece' => $piece, 'angles' => $angles]) {
            if ($piece->atTicks > $at) {
                $chunks[] = $hole($at, $piece->atTicks);
            }
            $chunks[] = [
                'at' => $piece->atTicks,
                'length' => $piece->durationTicks,
                'name' => $piece->name,
                'piece' => $piece,
                'angles' => $angles,
            ];
            $at = $piece->atTicks + $piece->durationTicks;
        }
        if ($endTicks > $at) {
            $chunks[] = $hole($at, $endTicks);
        }

        return $chunks;
    }

    /** @return array<int, array{name: string, sounds: list<SoundPiece>}> what is heard of each track of a cut, by its number */
    private static function byTrack(Playlist $playlist): array
    {
        $tracks = [];
        foreach ($playlist->sounds as $sound) {
            if ($sound->track !== null) {
                $tracks[$sound->track]['name'] = $playlist->sequence->tracks[$sound->track]->name;
                $tracks[$sound->track]['sounds'][] = $sound;
            }
        }
        ksort($tracks);

        return $tracks;
    }

    /** So wide that the first picture of a cut fills it; of a reel, and where nobody knows that, sixteen to nine. */
    private static function width(Playlist $playlist, int $height): int
    {
        $size = $playlist->sequence->pictureSize() ?? ['width' => 16, 'height' => 9];

        return 2 * max(8, min(4096, (int) round(($height * $size['width']) / $size['height'] / 2)));
    }

    /**
     * As long as nothing is shown.
     *
     * @param  array{slate: bool, timecode: bool, name: string, originals: bool, height: int, width: int}  $wanted
     */
    private static function black(int $ticks, FrameRate $rate, array $wanted, string $target): void
    {
        if (is_file($target)) {
            return;
        }
        $size = "$wanted[width]x$wanted[height]";
        self::run(
            [
                ...Ffmpeg::command(),
                ...['-f', 'lavfi', '-i', "color=c=0x0c0f11:s=$size:r=$rate->num/$rate->den"],
                ...['-frames:v', (string) Ticks::toFrames($ticks, $rate)],
                ...self::coded($rate),
                "$target.part",
            ],
            "$target.part",
            $target,
            'a hole',
        );
    }

    /** @return list<string> how pictures are written, so that they can be put one after the other */
    private static function coded(FrameRate $rate): array
    {
        return [
            ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '20', '-pix_fmt', 'yuv420p', '-g', '48'],
            ...['-fps_mode', 'cfr', '-r', "$rate->num/$rate->den", '-video_track_timescale', (string) ($rate->num * 100)],
            ...['-f', 'mp4'],
        ];
    }

    /** The look that a picture is shown with, by the formulas of the ASC CDL on eight bits; none where it has none. */
    private static function look(Clip $clip): string
    {
        $look = Look::of($clip)?->cdl();
        if ($look === null || $look == Cdl::identity()) {
            return '';
        }
        $curve = static fn(int $n): string => sprintf(
            "'clip(255*pow(max(0\,val/255*%s+%s)\,%s)\,0\,255)'",
            ...array_map(Cdl::number(...), [$look->slope[$n], $look->offset[$n], $look->power[$n]]),
        );
        $weights = [0.2126, 0.7152, 0.0722];
        $mix = [];
        foreach (['r', 'g', 'b'] as $to => $row) {
            foreach (['r', 'g', 'b'] as $from => $column) {
                $own = $to === $from ? $look->saturation : 0.0;
                $mix[] = $row . $column . '=' . Cdl::number((1 - $look->saturation) * $weights[$from] + $own);
            }
        }

        return "format=gbrp,lutrgb=r={$curve(0)}:g={$curve(1)}:b={$curve(2)},colorchannelmixer=" . implode(':', $mix);
    }

    /** @return array{clip: Clip, in: int, at: int, length: int} the reel's own picture */
    private static function alone(PicturePiece $piece): array
    {
        return ['clip' => $piece->clip, 'in' => $piece->inTicks, 'at' => 0, 'length' => $piece->durationTicks];
    }

    /**
     * @param  list<array{clip: Clip, in: int, out: int, at: int}>  $angles
     * @return non-empty-list<array{clip: Clip, in: int, at: int, length: int}> the reel's own picture first
     */
    private static function places(PicturePiece $piece, array $angles): array
    {
        $places = [self::alone($piece)];
        foreach ($angles as $angle) {
            if ($angle['clip']->id !== $piece->clip->id && count($places) < 9) {
                $length = min($angle['out'] - $angle['in'], $piece->durationTicks - $angle['at']);
                if ($length > 0) {
                    $places[] = ['clip' => $angle['clip'], 'in' => $angle['in'], 'at' => $angle['at'], 'length' => $length];
                }
            }
        }

        return $places;
    }

    /**
     * @param  non-empty-list<array{clip: Clip, in: int, at: int, length: int}>  $places
     * @param  array{slate: bool, timecode: bool, name: string, originals: bool, height: int, width: int}  $wanted
     * @return bool whether all of it came from where it was wanted
     */
    private function picture(PicturePiece $piece, array $places, FrameRate $rate, array $wanted, string $target): bool
    {
        $isAsWanted = true;
        $inputs = $chains = [];
        $across = (int) ceil(sqrt(count($places)));
        [$width, $height] = [$wanted['width'], $wanted['height']];
        [$cellWidth, $cellHeight] = [2 * intdiv($width, 2 * $across), 2 * intdiv($height, 2 * $across)];
        foreach ($places as $number => $place) {
            [$file, $isThis] = $this->source($place['clip'], $wanted['originals']);
            $isAsWanted = $isAsWanted && $isThis;
            $own = $place['clip']->rate() ?? $rate;
            $first = Ticks::toFrames($place['in'], $own);
            $chains[] =
                "[$number:v:0]" .
                implode(
                    ',',
                    array_filter([
                        'setpts=PTS-STARTPTS',
                        "scale=$cellWidth:$cellHeight:force_original_aspect_ratio=decrease:force_divisible_by=2:flags=bilinear",
                        "pad=$cellWidth:$cellHeight:-1:-1:color=0x0c0f11",
                        'setsar=1',
                        self::look($place['clip']),
                        $number === 0 ? self::timecode($place['clip'], $first, $own, $wanted) : '',
                        "fps=fps=$rate->num/$rate->den:round=near:start_time=0",
                        $place['at'] > 0 ? sprintf('tpad=start=%d:color=0x0c0f11', Ticks::toFrames($place['at'], $rate)) : '',
                        // A picture that ends before its take stays as it ends; the reel goes on.
                        'tpad=stop=-1:stop_mode=clone',
                    ]),
                ) .
                "[place$number]";
            // Half a frame before it, so that the frame itself is the first that is read.
            $begin = max(0.0, (($first - 0.5) * $own->den) / $own->num);
            array_push($inputs, ...Ffmpeg::input($file, ['-ss', sprintf('%.6F', $begin)]));
        }
        $layout = implode(
            '|',
            array_map(
                static fn(int $number): string => sprintf(
                    '%d_%d',
                    ($number % $across) * $cellWidth,
                    intdiv($number, $across) * $cellHeight,
                ),
                array_keys($places),
            ),
        );
        $all = implode('', array_map(static fn(int $number): string => "[place$number]", array_keys($places)));
        $together =
            count($places) === 1
                ? '[place0]'
                : "$all" . 'xstack=inputs=' . count($places) . ":layout=$layout:fill=0x0c0f11[together];[together]";
        $words = self::words($piece, $wanted, $target);
        if (!is_file($target)) {
            self::run(
                [
                    ...Ffmpeg::command(),
                    ...$inputs,
                    '-filter_complex',
                    implode(';', $chains) . ";{$together}pad=$width:$height:-1:-1:color=0x0c0f11{$words}[all]",
                    ...['-map', '[all]', '-frames:v', (string) Ticks::toFrames($piece->durationTicks, $rate)],
                    ...self::coded($rate),
                    "$target.part",
                ],
                "$target.part",
                $target,
                $piece->name,
            );
        }
        foreach (glob("$target.*.txt") ?: [] as $file) {
            unlink($file);
        }

        return $isAsWanted;
    }

    /** @return array{string, bool} what is read of a clip, and whether it is what was wanted */
    private function source(Clip $clip, bool $originals): array
    {
        // A span of files, and pictures without a constant rate, are whole and even in their proxies only.
        $isPlain =
            count($clip->paths()) === 1 &&
            ($clip->facts['variable_rate'] ?? false) !== true &&
            $clip->library_ulid === null &&
            !$clip->isStill();
        if ($originals && $isPlain) {
            return [$this->stores->fileOf($clip), true];
        }

        return [self::made($clip, MediaFile::Proxy), !$originals];
    }

    /** @throws Problem if it was not made yet, or is gone */
    private static function made(Clip $clip, MediaFile $file, int $channel = 0): string
    {
        $path = MediaFolder::of($clip)->read($file, $channel);

        return is_file($path)
            ? $path
            : throw Problem::missing(
                ($file === MediaFile::Proxy ? 'The proxy of ' : 'The sound of ') . $clip->title(),
                'Make its proxy again from its sheet, then try again.',
            );
    }

    /**
     * The clip's own timecode, written over its picture while that has its own rate still.
     *
     * @param  array{slate: bool, timecode: bool, name: string, originals: bool, height: int, width: int}  $wanted
     */
    private static function timecode(Clip $clip, int $first, FrameRate $rate, array $wanted): string
    {
        if (!$wanted['timecode'] || $clip->start_ticks === null || $rate->nominal > 60) {
            return '';
        }
        $label = Clock::label($clip->start_ticks + Ticks::ofFrames($first, $rate), $rate);

        return sprintf(
            'drawtext=%s:timecode=%s:timecode_rate=%d/%d:x=w-tw-h/36:y=h/36',
            self::letters($wanted['height']),
            self::quoted($label),
            $rate->num,
            $rate->den,
        );
    }

    /**
     * Slate and name; they are read from files, since they may hold any letter.
     *
     * @param  array{slate: bool, timecode: bool, name: string, originals: bool, height: int, width: int}  $wanted
     */
    private static function words(PicturePiece $piece, array $wanted, string $target): string
    {
        $words = '';
        $draw = static function (string $what, string $text, string $place) use (&$words, $wanted, $target): void {
            file_put_contents("$target.$what.txt", $text);
            $words .= sprintf(
                ',drawtext=%s:textfile=%s:expansion=none:%s',
                self::letters($wanted['height']),
                self::quoted("$target.$what.txt"),
                $place,
            );
        };
        if ($wanted['slate'] && $piece->take !== null) {
            $draw('slate', $piece->take->label(), 'x=h/36:y=h/36');
        }
        if (trim($wanted['name']) !== '') {
            $draw('name', trim($wanted['name']), 'x=(w-tw)/2:y=h-th-h/36');
        }

        return $words;
    }

    /** A value of a filter, as the parsers of filters and of graphs read it. */
    private static function quoted(string $value): string
    {
        return "'" . str_replace("'", "'\\''", addcslashes($value, "\\':;")) . "'";
    }

    private static function letters(int $height): string
    {
        return sprintf(
            'fontfile=%s:fontsize=%d:fontcolor=0xE8E2D4:box=1:boxcolor=0x101417@0.8:boxborderw=%d',
            self::quoted(base_path(self::FONT)),
            intdiv($height, 24),
            intdiv($height, 72),
        );
    }

    /**
     * What is heard in a stretch, sample for sample as long as it lasts.
     *
     * @param  array{at: int, length: int, name: string}  $chunk
     * @param  list<SoundPiece>  $sounds
     */
    private function sound(array $chunk, array $sounds, string $target): void
    {
        if (is_file($target)) {
            return;
        }
        $from = Ticks::toSamples($chunk['at'], self::RATE);
        $to = Ticks::toSamples($chunk['at'] + $chunk['length'], self::RATE);
        $inputs = $chains = [];
        foreach ($sounds as $sound) {
            $begin = Ticks::toSamples($sound->atTicks, self::RATE);
            $end = Ticks::toSamples($sound->atTicks + $sound->durationTicks, self::RATE);
            if ($begin >= $to || $end <= $from) {
                continue;
            }
            $isPair = $sound->channels === [1 => 0.0, 2 => 0.0];
            foreach ($sound->channels as $channel => $gain) {
                $number = count($chains);
                $first = max(0, Ticks::toSamples($sound->inTicks, self::RATE) + max(0, $from - $begin));
                // A long recording is entered at a whole second, and the rest is cut by samples.
                $skip = intdiv($first, self::RATE);
                array_push($inputs, ...Ffmpeg::input(self::made($sound->clip, MediaFile::Channel, $channel), ['-ss', (string) $skip]));
                $length = min($end, $to) - max($begin, $from);
                $ears = $isPair ? [$channel === 1 ? '1' : '0', $channel === 2 ? '1' : '0'] : ['1', '1'];
                $chains[] =
                    "[$number:a:0]" .
                    implode(
                        ',',
                        array_filter([
                            sprintf('atrim=start_sample=%d,asetpts=PTS-STARTPTS', $first - $skip * self::RATE),
                            ClockRate::filter($sound->driftPpm, self::RATE),
                            "atrim=end_sample=$length",
                            sprintf('volume=%.6F:precision=float', 10 ** (($gain + $sound->gainDb) / 20)),
                            self::fades($sound, $sounds, max(0, $from - $begin), max(0, $end - $to), $length),
                            "pan=stereo|c0=$ears[0]*c0|c1=$ears[1]*c0",
                            sprintf('adelay=%dS:all=1', max(0, $begin - $from)),
                        ]),
                    ) .
                    "[sound$number]";
            }
        }
        $all = implode('', array_map(static fn(int $number): string => "[sound$number]", array_keys($chains)));
        $filter =
            $chains === [] ? 'anullsrc=r=48000:cl=stereo' : implode(';', $chains) . ";{$all}amix=inputs=" . count($chains) . ':normalize=0';
        self::run(
            [
                ...Ffmpeg::command(),
                ...$inputs,
                '-filter_complex',
                $filter . ',apad,atrim=end_sample=' . ($to - $from) . '[all]',
                ...['-map', '[all]', '-f', 's16le', '-ar', (string) self::RATE, '-ac', '2', "$target.part"],
            ],
            "$target.part",
            $target,
            $chunk['name'],
        );
    }

    /**
     * How a sound comes in and goes out, as far as that lies within what is written of it: as short as does not click where nobody
     * said, and not at all where the same sound goes on before or behind it.
     *
     * @param  list<SoundPiece>  $all
     * @param  int  $missing  samples of its beginning that are not written
     * @param  int  $behind  of its end
     * @param  int  $length  samples that are written
     */
    private static function fades(SoundPiece $sound, array $all, int $missing, int $behind, int $length): string
    {
        $fades = [];
        foreach ([[$sound->fadeInTicks, $missing, true], [$sound->fadeOutTicks, $behind, false]] as [$ticks, $gone, $isIn]) {
            $long = Ticks::toSamples($ticks, self::RATE);
            if ($ticks === 0 && $gone === 0 && !self::goesOn($sound, $all, $isIn)) {
                $fades[] = $isIn
                    ? sprintf('afade=t=in:ss=0:ns=%d', self::FADE)
                    : sprintf('afade=t=out:ss=%d:ns=%d', max(0, $length - self::FADE), self::FADE);
            } elseif ($gone < $long) {
                // One that began before what is written is cut with it.
                $at = $isIn ? 'n+' . ($gone + 1) : $length + $gone . '-n';
                $fades[] = sprintf('aeval=val(0)*clip((%s)/%d\,0\,1)', $at, $long + 1);
            }
        }

        return implode(',', $fades);
    }

    /** @param  list<SoundPiece>  $all */
    private static function goesOn(SoundPiece $sound, array $all, bool $before): bool
    {
        foreach ($all as $other) {
            [$first, $second] = $before ? [$other, $sound] : [$sound, $other];
            if (
                $first->clip->id === $second->clip->id &&
                $first->atTicks + $first->durationTicks === $second->atTicks &&
                $first->inTicks + $first->durationTicks === $second->inTicks
            ) {
                return true;
            }
        }

        return false;
    }

    /** @param  list<string>  $files */
    private static function joined(array $files, string $target): void
    {
        $all = fopen("$target.part", 'wb') ?: throw UnableToReadMedia::missing($target);
        foreach ($files as $file) {
            $one = fopen($file, 'rb') ?: throw UnableToReadMedia::missing($file);
            stream_copy_to_stream($one, $all);
            fclose($one);
        }
        fclose($all);
        rename("$target.part", $target);
    }

    /**
     * @param  non-empty-list<string>  $pictures
     * @return int frames of the file
     */
    private function whole(string $folder, array $pictures, string $sound, Playlist $playlist, StoredSequence $reel): int
    {
        $links = "$folder/links";
        File::deleteDirectory($links);
        File::ensureDirectoryExists($links);
        $rate = $playlist->sequence->rate;
        $heard = Ffmpeg::samples($sound, self::RATE, 2);
        self::wav($sound, "$folder/reel.wav", $reel->name);
        self::run(
            [
                ...Ffmpeg::command(),
                ...Ffmpeg::inputOfParts($pictures, $links),
                ...$heard,
                ...['-map', '0:v:0', '-map', '1:a:0', '-c:v', 'copy', '-c:a', 'aac', '-b:a', '192k', '-map_metadata', '-1'],
                ...['-metadata', 'title=' . $reel->name, '-timecode', Clock::label($playlist->sequence->startTicks, $rate)],
                ...['-movflags', '+faststart', '-f', 'mp4', "$folder/reel.mp4.part"],
            ],
            "$folder/reel.mp4.part",
            "$folder/reel.mp4",
            $reel->name,
        );
        File::deleteDirectory($links);
        $frames = (int) Probe::file("$folder/reel.mp4")->frames;
        $expected = Ticks::toFrames($playlist->sequence->durationTicks(), $rate);
        if ($frames !== $expected) {
            @unlink("$folder/reel.mp4");
            throw Problem::refused('reel.frames', "The file has $frames frames where the reel has $expected.", 'Try again.');
        }

        return $frames;
    }

    private static function wav(string $samples, string $target, string $name): void
    {
        self::run(
            [
                ...Ffmpeg::command(),
                ...Ffmpeg::samples($samples, self::RATE, 2),
                ...['-c:a', 'pcm_s16le', '-rf64', 'auto', '-f', 'wav', "$target.part"],
            ],
            "$target.part",
            $target,
            $name,
        );
    }

    /**
     * @param  list<string>  $command
     *
     * @throws UnableToReadMedia
     */
    private static function run(array $command, string $part, string $target, string $name): void
    {
        $run = Process::run($command, null, 6 * 3600);
        if ($run['status'] !== 0) {
            @unlink($part);
            throw UnableToReadMedia::program('ffmpeg', $name, $run['error']);
        }
        rename($part, $target);
    }
}
