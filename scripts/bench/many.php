<?php

declare(strict_types=1);

// A production's worst day: COUNT poor guides without a clock against COUNT recorder files (2 000 by default), from kept guides
// on two cores; bar 20 minutes and 512 MB, and how many are found. Material is dialogue at many speeds, made once.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';
require __DIR__ . '/LineupMaterial.php';

use Cartella\Bench\Bars;
use Cartella\Bench\LineupMaterial;
use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;
use Cartella\Demo\Random;

const BYTES = 2 * GuideTrack::SAMPLE_RATE;
const RECORDED = 60;

[, $folder] = $argv;
$count = max(10, (int) ($argv[2] ?? 2000));
$random = new Random((int) ($argv[3] ?? 7));
$dialogue = (new LineupMaterial("$folder/spoken"))->dialogue(1800, 31);
is_dir("$folder/clips") || mkdir("$folder/clips", 0o700, true);

/** An hour of the same voices at another speed, as a recorder hears it and as a bad camera microphone across the room does. */
$hour = static function (int $number) use ($folder, $dialogue): array {
    $paths = ["$folder/recorder-$number.raw", "$folder/camera-$number.raw"];
    if (!is_file($paths[1])) {
        $speed = sprintf('asetrate=%d%s', 48_000 * (0.78 + 0.013 * $number), $number % 2 === 1 ? ',areverse' : '');
        $out = ['-ac', '1', '-ar', (string) GuideTrack::SAMPLE_RATE, '-f', 's16le'];
        LineupMaterial::ffmpeg(['-i', $dialogue, '-af', "$speed,aresample=48000", ...$out, $paths[0]]);
        LineupMaterial::ffmpeg([
            '-i',
            $dialogue,
            '-filter_complex',
            "[0:a]$speed,aresample=48000,highpass=f=250,lowpass=f=3000,aecho=0.8:0.8:31|67|113:0.4|0.3|0.2,volume=0.12[near];" .
            "anoisesrc=c=pink:r=48000:a=0.06:seed=$number:d=7200[hiss];[near][hiss]amix=inputs=2:normalize=0:duration=first",
            ...$out,
            $paths[1],
        ]);
    }

    return $paths;
};
$clips = $truth = [];
$made = static function (string $id, string $device, string $bytes) use ($folder, &$clips): void {
    $path = "$folder/clips/$id";
    if (!is_file("$path.shape")) {
        file_put_contents($path, $bytes);
        GuideTrack::ofFile($path)->keepShape();
    }
    $clips[] = new LineupClip(
        $id,
        $device,
        $device === 'S',
        intdiv(filesize($path) * Ticks::PER_SECOND, BYTES),
        sound: static fn(): GuideTrack => GuideTrack::ofFile($path),
    );
};
for ($n = $at = $number = 0; $n < $count; $n++) {
    [$recorder, $camera] = $hour($number);
    if (BYTES * ($at + RECORDED) > filesize($recorder)) {
        [$at, $number] = [0, $number + 1];
        [$recorder, $camera] = $hour($number);
    }
    $made("S$n", 'S', (string) file_get_contents($recorder, false, null, BYTES * $at, BYTES * RECORDED));
    $into = 2 * (int) (GuideTrack::SAMPLE_RATE * (2 + 20 * $random->unit()));
    $length = 2 * (int) (GuideTrack::SAMPLE_RATE * (15 + 18 * $random->unit()));
    $made("C$n", 'C' . $n % 8, (string) file_get_contents($camera, false, null, BYTES * $at + $into, $length));
    $truth["C$n"] = ["S$n", intdiv($into * Ticks::PER_SECOND, BYTES)];
    $at += RECORDED;
}
$begin = hrtime(true);
$result = Lineup::of($clips, [Way::Sound], static function (string $id, int $done, int $total) use ($begin): void {
    if ($done % 250 === 0) {
        fprintf(STDERR, "many      %d of %d after %.0f s\n", $done, $total, (hrtime(true) - $begin) / 1e9);
    }
});
$seconds = (hrtime(true) - $begin) / 1e9;
$right = $wrong = 0;
$places = array_column($result->placements, null, 'id');
foreach ($truth as $id => [$against, $ticks]) {
    $place = $places[$id] ?? null;
    $recording = $places[$against] ?? null;
    $isRight =
        $place !== null &&
        $recording?->group === $place->group &&
        abs($place->startTicks - $recording->startTicks - $ticks) < Ticks::PER_SECOND / 50;
    $right += (int) ($isRight && $place->sure);
    $wrong += (int) (!$isRight && $place?->sure === true);
}
Bars::check(
    sprintf(
        'many      %d poor guides against %d recordings: %.0f s (bar %.0f s), %d MB (bar 512 MB); %d found surely, %d surely wrong (bar 0)',
        $count,
        $count,
        $seconds,
        (1200 * $count) / 2000,
        memory_get_peak_usage(true) / 1_048_576,
        $right,
        $wrong,
    ),
    $seconds <= (1200 * $count) / 2000 && memory_get_peak_usage(true) < 512 * 1_048_576 && $wrong === 0,
);
exit(Bars::status());
