<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Footage\ClipMedia;
use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Footage\MediaRecipe;
use App\Domain\Footage\Stores;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SoundPiece;
use App\Models\Clip;
use App\Support\Problem;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Process;
use Cartella\Core\Sound\ClockRate;
use Cartella\Core\Time\Ticks;

/**
 * A picture's proxy with what players let hear under it, as a file of its own: for those who open it elsewhere. The recordings are
 * read from their copies; timecode and reel are the clip's.
 */
final class MixedProxy
{
    private const RATE = 48_000;

    public function __construct(private readonly Stores $stores) {}

    /** @return list<SoundPiece> what is mixed; none where no recording ran with the picture, so that its proxy is all there is */
    public static function piecesOf(Clip $picture): array
    {
        $sounds = Playlist::ofClip($picture)->sounds;

        return array_filter($sounds, static fn(SoundPiece $piece): bool => $piece->clip->isSound()) === [] ? [] : $sounds;
    }

    /**
     * @param  non-empty-list<SoundPiece>  $pieces
     *
     * @throws UnableToReadMedia if ffmpeg cannot do it
     * @throws Problem if no copy of a recording can be reached
     */
    public function write(Clip $picture, array $pieces, string $target): void
    {
        $inputs = $chains = [];
        $length = Ticks::toSamples((int) $picture->duration_ticks, self::RATE);
        foreach ($pieces as $number => $piece) {
            [$input, $chains[]] = $this->piece($piece, $number, $length);
            array_push($inputs, ...$input);
        }
        $all = implode('', array_map(static fn(int $number): string => "[sound$number]", array_keys($pieces)));
        $run = Process::run(
            [
                ...Ffmpeg::command(),
                ...Ffmpeg::input(MediaFolder::of($picture)->read(MediaFile::Proxy)),
                ...$inputs,
                '-filter_complex',
                implode(';', $chains) .
                ';' .
                $all .
                'amix=inputs=' .
                count($pieces) .
                ':normalize=0,alimiter=limit=0.95:level=disabled:latency=1[sound]',
                '-map',
                '0:v:0',
                '-c:v',
                'copy',
                '-map',
                '[sound]',
                '-c:a',
                'aac',
                '-b:a',
                '160k',
                ...MediaRecipe::timecode($picture),
                '-f',
                'mp4',
                $target,
            ],
            null,
            6 * 3600,
        );
        if ($run['status'] !== 0) {
            @unlink($target);
            throw UnableToReadMedia::program('ffmpeg', $picture->name, $run['error']);
        }
    }

    /** @return array{list<string>, string} what ffmpeg reads, and the filter that puts it in its place */
    private function piece(SoundPiece $piece, int $number, int $length): array
    {
        $clip = $piece->clip;
        $isOwn = $clip->isPicture();
        // The camera's own sound is in its proxy already.
        $file = $isOwn ? MediaFolder::of($clip)->read(MediaFile::Proxy) : ClipMedia::soundFile($clip, $this->stores);
        $own = $isOwn ? self::RATE : (int) $clip->sample_rate;
        $from = max(0, Ticks::toSamples($piece->inTicks, $own));
        // A long recording is entered at a whole second, which PCM can be exactly; what is left is cut by samples.
        $skip = strtolower(pathinfo($file, PATHINFO_EXTENSION)) === 'wav' ? intdiv($from, $own) : 0;
        $from -= $skip * $own;
        $filters = [
            sprintf(
                'atrim=start_sample=%d:end_sample=%d,asetpts=PTS-STARTPTS',
                $from,
                $from + Ticks::toSamples($piece->durationTicks, $own),
            ),
            $isOwn ? '' : self::mix($piece->channels),
            'aresample=' . self::RATE,
            ClockRate::filter($piece->driftPpm, self::RATE),
            sprintf('adelay=%dS:all=1,apad,atrim=end_sample=%d', Ticks::toSamples($piece->atTicks, self::RATE), $length),
        ];

        return [
            Ffmpeg::input($file, ['-ss', (string) $skip]),
            sprintf('[%d:a:0]', $number + 1) . implode(',', array_filter($filters)) . "[sound$number]",
        ];
    }

    /**
     * A filter of ffmpeg that makes two ears of some channels; two that nobody changed stay left and right.
     *
     * @param  array<int, float>  $channels  by number from 1, gain in dB
     */
    public static function mix(array $channels): string
    {
        if ($channels === [1 => 0.0, 2 => 0.0]) {
            return 'pan=stereo|c0=c0|c1=c1';
        }
        $parts = [];
        foreach ($channels as $index => $gain) {
            $parts[] = sprintf('%.4F*c%d', 10 ** ($gain / 20), $index - 1);
        }
        $sum = $parts === [] ? '0*c0' : implode('+', $parts);

        return "pan=stereo|c0=$sum|c1=$sum";
    }
}
