<?php

declare(strict_types=1);

namespace Cartella\Bench;

use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Sound\Claps;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Sound\Ltc;
use Cartella\Core\Tests\Support\LtcWriter;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Cartella\Demo\Random;
use Symfony\Component\Process\Process;

/** The measurements of `./cartella bench lineup`; each makes its material once for a seed and prints what it found. */
final class LineupTrials
{
    private const TICKS_PER_SAMPLE = Ticks::PER_SECOND / LineupMaterial::RATE;

    /** Ticks that are two milliseconds, and half a frame at 25 fps. */
    private const NEAR = Ticks::PER_SECOND / 500;

    private const HALF_FRAME = Ticks::PER_SECOND / 50;

    private const HEARD = [
        'white noise, 0 dB',
        'pink noise, 0 dB',
        '5 dB',
        '10 dB',
        '30 dB quieter',
        '300-3400 Hz',
        'a room',
        'drift to 60 ppm',
        'all of it',
        'decoys',
    ];

    private const CLIPS = 10;

    private readonly LineupMaterial $material;

    public function __construct(private readonly string $folder, private readonly int $seed)
    {
        is_dir($folder) || mkdir($folder, 0o700, true);
        $this->material = new LineupMaterial("$folder/spoken");
    }

    public function accuracy(): void
    {
        [$clips, $truth] = $this->heard();
        $placed = array_column($this->run($clips)['placements'], null, 'id');
        $sums = [];
        foreach ($truth as $id => [$heard, $at]) {
            // Clips that heard the same elsewhere are rightly tied to each other; on the recording's clock a decoy has no place.
            $place = ($placed[$id]['group'] ?? null) === 0 ? $placed[$id] : null;
            $miss = $place === null || $at === null ? null : abs($place['start_ticks'] - $at);
            $sums[$heard] ??= ['clips' => 0, 'near' => 0, 'sure' => 0, 'wrong' => 0, 'worst' => 0];
            $sums[$heard]['clips']++;
            $sums[$heard]['near'] += (int) ($miss !== null && $miss <= self::NEAR);
            $sums[$heard]['sure'] += (int) ($place['sure'] ?? false);
            $sums[$heard]['wrong'] += (int) (($place['sure'] ?? false) && ($miss === null || $miss > self::HALF_FRAME));
            $sums[$heard]['worst'] = max($sums[$heard]['worst'], $miss ?? 0);
        }
        $decoys = $sums['decoys'];
        unset($sums['decoys']);
        foreach ($sums as $heard => $sum) {
            printf(
                "accuracy  %-18s %d of %d within 2 ms, worst %.2f ms, %d sure\n",
                $heard,
                $sum['near'],
                $sum['clips'],
                ($sum['worst'] * 1000) / Ticks::PER_SECOND,
                $sum['sure'],
            );
        }
        $near = (100 * array_sum(array_column($sums, 'near'))) / array_sum(array_column($sums, 'clips'));
        $wrong = array_sum(array_column($sums, 'wrong'));
        Bars::check(
            sprintf(
                'accuracy  all: %.1f %% within 2 ms (bar 98), %d sure ones off by more than half a frame (bar 0), %d ' .
                    'of %d decoys called sure (bar 0)',
                $near,
                $wrong,
                $decoys['sure'],
                $decoys['clips'],
            ),
            $near >= 98 && $wrong === 0 && $decoys['sure'] === 0,
        );
    }

    /** Seventeen clips, three hours, against an hour of four tracks: from nothing, and from what cataloguing keeps. */
    public function longDay(): void
    {
        $dialogue = $this->material->dialogue(3600, $this->seed);
        $recording = "$this->folder/recording.wav";
        is_file($recording) ||
            LineupMaterial::ffmpeg(['-i', $dialogue, '-af', 'pan=4c|c0=0.8*c0|c1=0.5*c0|c2=0.4*c0|c3=c0', '-c:a', 'pcm_s16le', $recording]);
        $random = new Random($this->seed + 1);
        $clips = [['id' => 'S', 'device' => 'S', 'path' => $recording]];
        for ($number = 0; $number < 17; $number++) {
            $from = $random->between(0, (3600 - 640) * 1000) / 1000;
            $file = "$this->folder/long-$number.wav";
            is_file($file) ||
                LineupMaterial::ffmpeg([
                    '-ss',
                    (string) $from,
                    '-t',
                    '635.3',
                    '-i',
                    $dialogue,
                    '-filter_complex',
                    self::guide($number + 1),
                    '-c:a',
                    'pcm_s16le',
                    $file,
                ]);
            $clips[] = ['id' => "C$number", 'device' => "C$number", 'path' => $file, 'channels' => 1];
        }
        $floor = 0.0;
        foreach ($clips as $clip) {
            $floor += self::seconds(
                static fn() => (new Process(
                    ['ffmpeg', '-v', 'error', '-nostdin', '-i', $clip['path'], '-ac', '1', '-ar', '8000', '-f', 's16le', '-y', '/dev/null'],
                    timeout: 900,
                ))->mustRun(),
            );
        }
        $answer = [];
        $nothing = self::seconds(function () use ($clips, &$answer): void {
            $answer = $this->run($clips);
        });
        $this->report(
            '3 h against 1 h, from nothing',
            $answer,
            sprintf('%.1f s, ffmpeg decodes the same sound in %.1f s: %.2fx (bar 2)', $nothing, $floor, $nothing / $floor),
            $nothing / $floor <= 2,
        );
        $kept = $this->keep(array_map(static fn(array $clip): array => [$clip['id'], $clip['device'], $clip['path']], $clips));
        $this->fromFeatures('3 h against 1 h, from features', $kept, 15);
    }

    /** A scripted day of pairs and triples; half of it and a quarter show how the time grows. */
    public function scriptedDay(): void
    {
        $dialogue = $this->material->dialogue(3600, $this->seed);
        $random = new Random($this->seed + 2);
        $sources = [];
        foreach (['S' => 'anull', 'A' => self::guide(41), 'B' => self::guide(43)] as $device => $filter) {
            $sources[$device] = "$this->folder/day-$device.raw";
            is_file($sources[$device]) ||
                LineupMaterial::ffmpeg([
                    '-i',
                    $dialogue,
                    '-filter_complex',
                    $filter,
                    '-ac',
                    '1',
                    '-ar',
                    '8000',
                    '-f',
                    's16le',
                    $sources[$device],
                ]);
        }
        is_dir("$this->folder/day") || mkdir("$this->folder/day");
        $clips = [];
        for ($take = 0; $take < 120; $take++) {
            foreach ($sources as $device => $source) {
                $from = (int) (8000 * ($take * 29 + 4 * $random->unit() + 0.5));
                $file = "$this->folder/day/$device-$take";
                file_put_contents(
                    $file,
                    (string) file_get_contents($source, false, null, 2 * $from, 2 * (int) (8000 * (16 + 8 * $random->unit()))),
                );
                GuideTrack::ofFile($file)->keepShape();
                $clips[] = ['id' => "$device-$take", 'device' => $device, 'guide' => $file];
            }
        }
        $times = [];
        foreach ([30, 60, 120] as $takes) {
            $times[] = $this->fromFeatures(
                "scripted day, $takes takes of three devices",
                array_slice($clips, 0, 3 * $takes),
                $takes === 120 ? 10 : null,
            );
        }
        Bars::check(
            sprintf(
                'growth    twice the takes: %.1fx and %.1fx the time (bar 3x: 4x would be the square)',
                $times[1] / $times[0],
                $times[2] / $times[1],
            ),
            max($times[1] / $times[0], $times[2] / $times[1]) < 3,
        );
    }

    public function timecode(): void
    {
        $exact = $count = 0;
        foreach (
            [
                '24' => ['09:59:58:20', '10:00:01:19'],
                '25' => ['23:59:58:00', '00:00:01:24'],
                '29.97df' => ['00:00:58;10', '00:01:01;12'],
                '30' => ['01:02:03:04', '01:02:06:03'],
            ]
            as $name => [$first, $last]
        ) {
            $rate = FrameRate::parse((string) $name);
            foreach ([-3, -12, -25, -40] as $level) {
                foreach ([0.9, 1.0, 1.1] as $speed) {
                    foreach ([null, 10] as $noise) {
                        $read = Ltc::ofBytes(LtcWriter::write($rate, $first, $last, $level, $speed, $count % 2 === 1, $noise));
                        $exact += (int) ([$read?->first, $read?->last, $read?->rate->label()] === [$first, $last, $rate->label()]);
                        $count++;
                    }
                }
            }
        }
        Bars::check(
            sprintf(
                'timecode  %d of %d signals exact in first and last frame and rate: 4 rates, -3 to -40 dBFS, 0.9 to ' .
                    '1.1x, clean and at 10 dB (bar all)',
                $exact,
                $count,
            ),
            $exact === $count,
        );
    }

    /** The claps of the demo's slates, on the recorder and on the cameras' guide sound and pictures. */
    public function claps(string $demo): void
    {
        $counts = ['sound' => [0, 0], 'picture' => [0, 0]];
        $false = $minutes = 0.0;
        foreach (json_decode((string) file_get_contents("$demo/truth.json"), true)['clips'] as $clip) {
            $path =
                "$demo/cards/{$clip['card']}/ROLL_{$clip['card']}/" .
                ($clip['device'] === 'S' ? "{$clip['name']}.wav" : "{$clip['name']}/{$clip['name']}.mov");
            if (!is_file($path) || !(isset($clip['clap_sample']) || isset($clip['clap_frame']))) {
                continue;
            }
            $found = json_decode(
                (new Process([__DIR__ . '/../../core/bin/cartella-core', 'claps', $path], timeout: 300))->mustRun()->getOutput(),
                true,
            );
            // A frame is the picture of the time from its start to the next one's.
            $at = isset($clip['clap_sample']) ? $clip['clap_sample'] / 48_000 : null;
            if ($at !== null) {
                $near = array_filter(
                    $found['claps'],
                    static fn(array $clap): bool => abs($clap['ticks'] / Ticks::PER_SECOND - $at) <= 0.005,
                );
                $counts['sound'][0] += (int) ($near !== []);
                $counts['sound'][1]++;
                $false += count($found['claps']) - count($near);
                $minutes += GuideTrack::decode($path, [4])->samples() / GuideTrack::SAMPLE_RATE / 60;
            } else {
                $counts['picture'][0] += (int) (abs(($found['flashes'][0]['frame'] ?? -9) - $clip['clap_frame']) <= 1);
                $counts['picture'][1]++;
            }
        }
        $false /= max(0.1, $minutes);
        Bars::check(
            sprintf(
                'claps     demo: %d of %d within 5 ms on sound (bar 95 %%), %.1f false ones a minute (bar 1); %d of ' .
                    '%d slates within a frame on picture, first choice (bar 95 %%)',
                ...$counts['sound'],
                ...[$false],
                ...$counts['picture'],
            ),
            $false <= 1 && self::isMost(...$counts['sound']) && self::isMost(...$counts['picture']),
        );
        $this->clapsInDialogue();
    }

    private function clapsInDialogue(): void
    {
        $random = new Random($this->seed + 3);
        $dialogue = $this->material->dialogue(720, $this->seed + 4);
        $right = $false = 0;
        $count = 40;
        $minutes = 0.0;
        for ($slate = 0; $slate < $count; $slate++) {
            $samples = LineupMaterial::cut($dialogue, (int) ($random->unit() * 690 * LineupMaterial::RATE), 20 * LineupMaterial::RATE);
            // A slate is held up and closed before anybody speaks: two and a half seconds of the room, and the stick in them.
            $quiet = array_map(static fn(): float => 0.004 * ($random->unit() - 0.5), array_fill(0, (int) (2.5 * LineupMaterial::RATE), 0));
            $at = (int) ((0.8 + 1.1 * $random->unit()) * LineupMaterial::RATE);
            $level = 0.25 + 0.6 * $random->unit();
            for ($i = 0; $i < 4000; $i++) {
                $quiet[$at + $i] = ($quiet[$at + $i] ?? 0.0) + $level * (2 * $random->unit() - 1) * exp(-$i / 900);
            }
            $track = $this->guideOf(LineupMaterial::noisy([...$quiet, ...$samples], 25, true, $random), 'slate');
            $claps = Claps::of($track);
            $near = array_filter(
                $claps,
                static fn(array $clap): bool => abs($clap['ticks'] / Ticks::PER_SECOND - $at / LineupMaterial::RATE) <= 0.005,
            );
            $right += (int) ($near !== []);
            $false += count($claps) - count($near);
            $minutes += $track->samples() / GuideTrack::SAMPLE_RATE / 60;
        }
        Bars::check(
            sprintf(
                'claps     bench: %d of %d within 5 ms, %.1f false ones a minute of dialogue (bars 95 %% and 1)',
                $right,
                $count,
                $false / $minutes,
            ),
            self::isMost($right, $count) && $false / $minutes <= 1,
        );
    }

    private static function isMost(int $right, int $count): bool
    {
        return $count > 0 && $right >= 0.95 * $count;
    }

    /**
     * @return array{list<array<string, string>>, array<string, array{string, int|null}>} clips, and how each was heard and where it lies
     */
    private function heard(): array
    {
        $kept = "$this->folder/heard.json";
        if (is_file($kept)) {
            return json_decode((string) file_get_contents($kept), true);
        }
        $rate = LineupMaterial::RATE;
        $recording = $this->material->dialogue(720, $this->seed + 4);
        $elsewhere = $this->material->dialogue(600, $this->seed + 5);
        $before = $this->material->dialogue(400, $this->seed + 6);
        $random = new Random($this->seed + 7);
        $clips = [['id' => 'S', 'device' => 'S', 'path' => $recording]];
        $truth = [];
        foreach (self::HEARD as $kind => $heard) {
            for ($number = 0; $number < self::CLIPS; $number++) {
                $isDecoy = $heard === 'decoys';
                $isDrift = $heard === 'drift to 60 ppm';
                $length =
                    (int) ($rate *
                        ($isDrift
                            ? 30 + 150 * $random->unit()
                            : ($number % 3 === 0
                                ? 5.1 + 3 * $random->unit()
                                : 8 + 25 * $random->unit())));
                $from = $random->between(0, ($isDecoy ? 600 : 720) * $rate - $length - 10);
                $samples = LineupMaterial::cut($isDecoy ? $elsewhere : $recording, $from, $length);
                $lead = 0;
                if ($number % 5 === 4 && !$isDrift && !$isDecoy) {
                    // It ran before the recorder did.
                    $lead = 8 * $rate;
                    $samples = [...LineupMaterial::cut($before, $random->between(0, 390 * $rate), $lead), ...$samples];
                }
                $samples = match ($heard) {
                    'white noise, 0 dB' => LineupMaterial::noisy($samples, 0, false, $random),
                    'pink noise, 0 dB' => LineupMaterial::noisy($samples, 0, true, $random),
                    '5 dB' => LineupMaterial::noisy($samples, 5, false, $random),
                    '10 dB' => LineupMaterial::noisy($samples, 10, true, $random),
                    '30 dB quieter' => LineupMaterial::louder(LineupMaterial::noisy($samples, 20, true, $random), -30),
                    '300-3400 Hz' => LineupMaterial::narrow($samples),
                    'a room' => LineupMaterial::echoing($samples, $random),
                    'drift to 60 ppm' => LineupMaterial::noisy(
                        LineupMaterial::drifting($samples, ($number % 2 === 0 ? 1 : -1) * (20 + 40 * $random->unit())),
                        10,
                        true,
                        $random,
                    ),
                    'all of it' => LineupMaterial::noisy(
                        LineupMaterial::narrow(LineupMaterial::echoing($samples, $random)),
                        5,
                        true,
                        $random,
                    ),
                    default => $number % 2 === 0
                        ? LineupMaterial::noisy($samples, 10, true, $random)
                        : LineupMaterial::echoing($samples, $random),
                };
                $id = "$kind-$number";
                LineupMaterial::write("$this->folder/heard-$id.wav", $samples);
                $clips[] = ['id' => $id, 'device' => $id, 'path' => "$this->folder/heard-$id.wav"];
                $truth[$id] = [$heard, $isDecoy ? null : ($from - $lead) * self::TICKS_PER_SAMPLE];
            }
        }
        file_put_contents($kept, json_encode([$clips, $truth]));

        return [$clips, $truth];
    }

    /**
     * @param  list<array<string, mixed>>  $clips
     * @return array<string, mixed> what the core's command answers, by sound alone
     */
    private function run(array $clips): array
    {
        $manifest = "$this->folder/manifest.json";
        file_put_contents($manifest, json_encode(['clips' => $clips, 'ways' => ['sound']]));

        return json_decode(
            (new Process([__DIR__ . '/../../core/bin/cartella-core', 'lineup', $manifest], timeout: 1800))->mustRun()->getOutput(),
            true,
        );
    }

    /**
     * @param  list<array{string, string, string}>  $clips  id, device, file
     * @return list<array{id: string, device: string, guide: string}>
     */
    private function keep(array $clips): array
    {
        is_dir("$this->folder/guides") || mkdir("$this->folder/guides");
        $kept = [];
        foreach ($clips as [$id, $device, $path]) {
            $guide = "$this->folder/guides/$id";
            is_file("$guide.shape") || GuideTrack::decodeTo($path, [$device === 'S' ? 4 : 1], $guide);
            $kept[] = ['id' => $id, 'device' => $device, 'guide' => $guide];
        }

        return $kept;
    }

    /**
     * Lines up in a process of its own, so that its memory is its own.
     *
     * @param  list<array{id: string, device: string, guide: string}>  $clips
     * @param  float|null  $bar  seconds
     * @return float seconds
     */
    private function fromFeatures(string $what, array $clips, ?float $bar): float
    {
        file_put_contents("$this->folder/features.json", json_encode($clips));
        $answer = json_decode(
            (new Process(
                [
                    PHP_BINARY,
                    '-d',
                    'opcache.enable_cli=1',
                    '-d',
                    'opcache.jit=function',
                    '-d',
                    'opcache.jit_buffer_size=64M',
                    '-d',
                    'memory_limit=512M',
                    __DIR__ . '/lineup-features.php',
                    "$this->folder/features.json",
                ],
                timeout: 900,
            ))
                ->mustRun()
                ->getOutput(),
            true,
        );
        $this->report(
            $what,
            $answer,
            sprintf('%.1f s, %d MB (bars %s512 MB)', $answer['seconds'], $answer['megabytes'], $bar === null ? '' : "$bar s, "),
            $answer['seconds'] <= ($bar ?? INF) && $answer['megabytes'] <= 512,
        );

        return $answer['seconds'];
    }

    /** @param  array<string, mixed>  $answer */
    private function report(string $what, array $answer, string $cost, bool $isMet): void
    {
        Bars::check(
            sprintf(
                'speed     %s: %d placed, %d sure, %s',
                $what,
                count($answer['placements']),
                count(array_filter($answer['placements'], static fn(array $place): bool => $place['sure'])),
                $cost,
            ),
            $isMet,
        );
    }

    /** @param  list<float>  $samples */
    private function guideOf(array $samples, string $name): GuideTrack
    {
        LineupMaterial::write("$this->folder/$name.wav", $samples);

        return GuideTrack::decode("$this->folder/$name.wav", [1]);
    }

    /** An ffmpeg filter that makes a camera's guide sound of a performance. */
    private static function guide(int $seed): string
    {
        return '[0:a]highpass=f=160,lowpass=f=5200,aecho=0.8:0.7:23|41:0.22|0.15,volume=0.4[near];' .
            "anoisesrc=c=pink:r=48000:a=0.02:seed=$seed:d=3600[hiss];[near][hiss]amix=inputs=2:normalize=0:duration=first";
    }

    private static function seconds(callable $work): float
    {
        $begin = hrtime(true);
        $work();

        return (hrtime(true) - $begin) / 1e9;
    }
}
