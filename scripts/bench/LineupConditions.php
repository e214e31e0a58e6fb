<?php

declare(strict_types=1);

namespace Cartella\Bench;

use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Media\Flashes;
use Cartella\Core\Sound\Claps;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;
use Cartella\Demo\Random;

/**
 * How true `sure` is where sets are not kind: claps among speech and in hiss, flashes of one frame, several microphones,
 * music from a loudspeaker, the same words again, wind, hardly an overlap, other sample rates.
 *
 * Each condition is measured twice: on voices, words and seeds that the engine was tuned on, and on others that nobody
 * looks at while tuning. Both columns are printed; the bars are for both.
 */
final class LineupConditions
{
    private const CLIPS = 12;

    private const HALF_FRAME = Ticks::PER_SECOND / 50;

    private const CLAP_TICKS = Ticks::PER_SECOND / 200;

    private const RECORDED = 90;

    /** What makes a guide of the dialogue, as ffmpeg's filters; `%d` is a number that differs from clip to clip. */
    private const MICROPHONES = [
        'stereo, one side across the room' => [
            '[0:a]asplit=2[a][b];[a]highpass=f=150,volume=0.4[near];' .
            '[b]adelay=23,lowpass=f=3000,aecho=0.8:0.7:37|61:0.4|0.3,volume=0.1[far];[near][far]join=inputs=2:channel_layout=stereo[heard]',
            2,
            48_000,
        ],
        'six microphones, a voice that walks' => [
            '[0:a]asplit=6[a][b][c][d][e][f];' .
            "[a]volume='0.3+0.25*sin(t/3)':eval=frame[p];[b]volume='0.3+0.25*cos(t/4)':eval=frame,adelay=4[q];" .
            '[c]volume=0.02[r];' .
            '[d]volume=0.2,adelay=9[s];[e]volume=0.1,lowpass=f=1500[u];[f]volume=0[v];' .
            '[p][q][r][s][u][v]join=inputs=6:channel_layout=5.1[heard]',
            6,
            48_000,
        ],
        'wind' => [
            '[0:a]volume=0.3[voice];anoisesrc=c=brown:r=48000:a=0.9:seed=%d:d=200,tremolo=f=0.7:d=0.9,lowpass=f=400[wind];' .
            '[voice][wind]amix=inputs=2:normalize=0:duration=first[heard]',
            1,
            48_000,
        ],
        'a guide at 44.1 kHz' => ['[0:a]volume=0.3,aresample=44100[heard]', 1, 44_100],
        'a guide at 96 kHz' => ['[0:a]volume=0.3,aresample=96000[heard]', 1, 96_000],
        '23.976 pictures, sound at 48.048 kHz' => ['[0:a]volume=0.3,aresample=48048[heard]', 1, 48_048],
    ];

    private readonly LineupMaterial $material;

    private function __construct(private readonly string $folder, private readonly int $seed, bool $isOther)
    {
        is_dir("$folder/clips") || mkdir("$folder/clips", 0o700, true);
        $this->material = new LineupMaterial("$folder/spoken", $isOther);
    }

    public static function compare(string $folder, int $seed): void
    {
        $own = (new self("$folder/own", $seed, false))->all();
        $unseen = (new self("$folder/unseen", 7919 * $seed + 31, true))->all();
        foreach ($own as $what => [$line, $isMet]) {
            [$otherLine, $otherIsMet] = $unseen[$what];
            Bars::check(sprintf('true      %-38s tuned on: %-34s never looked at: %-34s', $what, $line, $otherLine), $isMet && $otherIsMet);
        }
    }

    /** @return array<string, array{string, bool}> what was found and whether the bar is met, by condition */
    private function all(): array
    {
        $lines = [];
        foreach (self::MICROPHONES as $what => [$filter, $channels, $rate]) {
            $lines[$what] = $this->microphone($what, $filter, $channels, $rate);
        }
        $lines['a loudspeaker, the same song in every take'] = $this->takes(true);
        $lines['twenty takes of the same words'] = $this->takes(false);
        $lines['half a second before the recorder stops'] = $this->hardly();
        $lines['claps out of the quiet'] = $this->claps(0.3, null, null);
        $lines['claps among speech'] = $this->claps(0.6, 0.15, null);
        $lines['claps at -30 dB, 10 dB over hiss'] = $this->claps(0.0316, null, 10.0);
        $lines['flashes of one frame'] = $this->flashes();

        return $lines;
    }

    /** @return array{string, bool} */
    private function microphone(string $what, string $filter, int $channels, int $rate): array
    {
        $dialogue = $this->material->dialogue(self::RECORDED, $this->seed);
        $random = new Random($this->seed + (crc32($what) % 1000));
        $clips = [$this->clip('S', 'S', $dialogue, 1)];
        $truth = [];
        for ($n = 0; $n < self::CLIPS; $n++) {
            $from = round(2 + 55 * $random->unit(), 3);
            $length = round(9 + 18 * $random->unit(), 3);
            $file = sprintf('%s/clips/%08x-%d.wav', $this->folder, crc32($what), $n);
            is_file($file) ||
                LineupMaterial::ffmpeg([
                    ...['-ss', (string) $from, '-t', (string) $length, '-i', $dialogue],
                    ...['-filter_complex', str_replace('%d', (string) ($this->seed + $n), $filter), '-map', '[heard]'],
                    ...['-ar', (string) $rate, '-c:a', 'pcm_s16le', $file],
                ]);
            $clips[] = $this->clip("C$n", "C$n", $file, $channels);
            $truth["C$n"] = ['S', (int) ($from * Ticks::PER_SECOND)];
        }

        return $this->judged($clips, $truth);
    }

    /**
     * Takes that sound alike: a song that a loudspeaker plays in each of them, or the same words said again.
     *
     * @return array{string, bool}
     */
    private function takes(bool $withSong): array
    {
        $random = new Random($this->seed + ($withSong ? 5 : 6));
        $text =
            'The tide has taken the lower mill, and nobody will open the gate before the morning. Bring me the ledger, and say nothing.';
        $clips = $truth = [];
        for ($n = 0; $n < 20; $n++) {
            $recorded = "$this->folder/clips/take-" . (int) $withSong . "-$n.wav";
            $heard = "$this->folder/clips/heard-" . (int) $withSong . "-$n.wav";
            $begin = round(0.4 + 1.2 * $random->unit(), 3);
            if (!is_file($heard)) {
                file_put_contents("$recorded.raw", $withSong ? '' : $this->material->spoken($text, new Random($this->seed + 300 + $n)));
                $voice = $withSong
                    ? ['-i', $this->material->dialogue(14, $this->seed + 100 + $n)]
                    : ['-f', 's16le', '-ar', '22050', '-ac', '1', '-i', "$recorded.raw"];
                $song = sprintf(
                    "aevalsrc='0.12*sin(2*PI*t*220*pow(2,mod(floor(2*t)*7+%d,12)/12))*exp(-3*mod(t,0.5))" .
                        "+0.1*sin(2*PI*t*330*pow(2,mod(floor(3*t)*5+%d,12)/12))*exp(-4*mod(t,0.333))':s=48000:d=14",
                    $this->seed % 12,
                    $this->seed % 7,
                );
                LineupMaterial::ffmpeg([
                    ...$voice,
                    ...$withSong ? ['-f', 'lavfi', '-i', $song] : [],
                    ...[
                        '-filter_complex',
                        '[0:a]aresample=48000,volume=0.5' .
                        ($withSong ? '[v];[v][1:a]amix=inputs=2:normalize=0:duration=shortest' : ',apad=pad_dur=1') .
                        '[out]',
                    ],
                    ...['-map', '[out]', '-ac', '1', '-c:a', 'pcm_s16le', $recorded],
                ]);
                unlink("$recorded.raw");
                LineupMaterial::ffmpeg([
                    ...['-ss', (string) $begin, '-i', $recorded, '-filter_complex'],
                    '[0:a]highpass=f=200,lowpass=f=4000,aecho=0.8:0.7:29|53:0.3|0.2,volume=0.3[n];' .
                    "anoisesrc=c=pink:r=48000:a=0.01:seed=$n:d=30[h];[n][h]amix=inputs=2:normalize=0:duration=first",
                    ...['-c:a', 'pcm_s16le', $heard],
                ]);
            }
            $clips[] = $this->clip("S$n", 'S', $recorded, 1);
            $clips[] = $this->clip("C$n", 'C', $heard, 1);
            $truth["C$n"] = ["S$n", (int) ($begin * Ticks::PER_SECOND)];
        }

        return $this->judged($clips, $truth);
    }

    /** @return array{string, bool} a camera that has hardly anything in common with its recording */
    private function hardly(): array
    {
        $clips = $truth = [];
        for ($n = 0; $n < self::CLIPS; $n++) {
            $dialogue = $this->material->dialogue(24, $this->seed + 200 + $n);
            [$recorded, $heard] = ["$this->folder/clips/short-$n.wav", "$this->folder/clips/late-$n.wav"];
            if (!is_file($heard)) {
                LineupMaterial::ffmpeg(['-t', '12', '-i', $dialogue, '-c:a', 'pcm_s16le', $recorded]);
                LineupMaterial::ffmpeg(['-ss', '11.5', '-i', $dialogue, '-af', 'highpass=f=200,volume=0.3', '-c:a', 'pcm_s16le', $heard]);
            }
            $clips[] = $this->clip("S$n", 'S', $recorded, 1);
            $clips[] = $this->clip("C$n", 'C', $heard, 1);
            $truth["C$n"] = ["S$n", (int) (11.5 * Ticks::PER_SECOND)];
        }

        // Half a second of sound proves nothing; that nothing is called sure which is wrong is all that is asked.
        return $this->judged($clips, $truth, 0.0);
    }

    /**
     * @param  list<LineupClip>  $clips
     * @param  array<string, array{string, int}>  $truth  the recording that a clip ran with, and where in it
     * @param  float  $least  share that has to be sure and right
     * @return array{string, bool}
     */
    private function judged(array $clips, array $truth, float $least = 0.9): array
    {
        $places = array_column(Lineup::of($clips, [Way::Sound])->placements, null, 'id');
        $right = $wrong = 0;
        foreach ($truth as $id => [$recording, $ticks]) {
            [$place, $against] = [$places[$id] ?? null, $places[$recording] ?? null];
            $isRight =
                $place !== null &&
                $against?->group === $place->group &&
                abs($place->startTicks - $against->startTicks - $ticks) <= self::HALF_FRAME;
            $right += (int) ($isRight && $place->sure);
            $wrong += (int) (!$isRight && $place?->sure === true);
        }

        return [sprintf('%d of %d sure, %d surely wrong', $right, count($truth), $wrong), $wrong === 0 && $right >= $least * count($truth)];
    }

    /**
     * @param  float  $level  of the clap's first peak
     * @param  float|null  $talk  how loud somebody talks meanwhile; null for nobody
     * @param  float|null  $over  decibels of the clap over hiss
     * @return array{string, bool}
     */
    private function claps(float $level, ?float $talk, ?float $over): array
    {
        $random = new Random($this->seed + (int) (1000 * $level));
        $rate = LineupMaterial::RATE;
        $dialogue = $this->material->dialogue(400, $this->seed + 9);
        $right = $false = 0;
        $minutes = 0.0;
        for ($n = 0; $n < 3 * self::CLIPS; $n++) {
            $speech = LineupMaterial::cut($dialogue, (int) ($random->unit() * 380 * $rate), 14 * $rate);
            $quiet = (int) ((1.5 + $random->unit()) * $rate);
            foreach ($speech as $i => $value) {
                $speech[$i] = $talk === null && $i < 2 * $quiet ? 0.02 * $value : (($talk ?? 0.25) * $value) / 0.3;
            }
            $at = $quiet + (int) (0.4 * $rate * $random->unit());
            for ($i = 0; $i < 6000; $i++) {
                $speech[$at + $i] += $level * (2 * $random->unit() - 1) * exp(-$i / (600 + 500 * $random->unit()));
            }
            $hiss = $over === null ? 0.001 : ($level * 0.6) / 10 ** ($over / 20);
            foreach ($speech as $i => $value) {
                $speech[$i] = max(-1.0, min(1.0, $value + $hiss * 1.7 * (2 * $random->unit() - 1)));
            }
            $file = "$this->folder/clips/clap.wav";
            LineupMaterial::write($file, $speech);
            $track = GuideTrack::decode($file, [1]);
            $claps = Claps::of($track);
            $near = array_filter(
                $claps,
                static fn(array $clap): bool => abs($clap['ticks'] - (int) (($at * Ticks::PER_SECOND) / $rate)) <= self::CLAP_TICKS,
            );
            $right += (int) ($near !== []);
            $false += count($claps) - count($near);
            $minutes += $track->samples() / GuideTrack::SAMPLE_RATE / 60;
        }

        return [
            sprintf('%d of %d, %.1f false a minute', $right, 3 * self::CLIPS, $false / $minutes),
            $right >= 2.7 * self::CLIPS && $false / $minutes <= 1,
        ];
    }

    /** @return array{string, bool} */
    private function flashes(): array
    {
        $random = new Random($this->seed + 77);
        $right = 0;
        for ($n = 0; $n < self::CLIPS; $n++) {
            $frame = 20 + (int) (60 * $random->unit());
            $file = "$this->folder/clips/flash.mp4";
            LineupMaterial::ffmpeg([
                ...['-f', 'lavfi', '-i', sprintf('testsrc2=s=320x180:r=25:d=4,hue=s=%.2f,noise=alls=6:allf=t', $random->unit())],
                ...['-vf', "drawbox=w=iw:h=ih:color=white:t=fill:enable='eq(n,$frame)'", '-c:v', 'libx264', '-preset', 'ultrafast', $file],
            ]);
            $right += (int) ((Flashes::ofFile($file)[0]['frame'] ?? -1) === $frame);
        }

        return [sprintf('%d of %d by their own frame', $right, self::CLIPS), $right >= 0.9 * self::CLIPS];
    }

    private function clip(string $id, string $device, string $file, int $channels): LineupClip
    {
        $guide = "$file.guide";
        is_file("$guide.shape") || GuideTrack::decodeTo($file, [$channels], $guide);

        return new LineupClip(
            $id,
            $device,
            $device === 'S',
            intdiv(GuideTrack::ofFile($guide)->samples() * Ticks::PER_SECOND, GuideTrack::SAMPLE_RATE),
            sound: static fn(): GuideTrack => GuideTrack::ofFile($guide),
        );
    }
}
