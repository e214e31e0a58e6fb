<?php

declare(strict_types=1);

// Memory of real days: a line-up of HOURS of recordings (bar 400 MB), claps of ten hours (128 MB), timecode of ten hours (64 MB). The sound
// is noise in bursts; what lies in the folder already is not made again.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;
use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Sound\Claps;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Sound\Internal\LtcListener;
use Cartella\Core\Tests\Support\LtcWriter;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;

const BYTES_A_SECOND = 2 * GuideTrack::SAMPLE_RATE;

$folder = $argv[1];
$hours = max(1, (int) ($argv[2] ?? 40));

/** So many seconds of bursts of noise, as a guide with its shape. */
$made = static function (string $name, int $seconds, int $seed) use ($folder): string {
    $path = "$folder/$name";
    if (!is_file("$path.shape")) {
        $random = new Random\Randomizer(new Random\Engine\Mt19937($seed));
        $file = fopen($path, 'wb');
        $left = $level = 0;
        for ($tenth = 0; $tenth < 10 * $seconds; $tenth++) {
            if ($left-- <= 0) {
                $left = $random->getInt(1, 3);
                $level = $random->getInt(0, 3) === 0 ? 40 : $random->getInt(500, 9000);
            }
            $noise = unpack('s*', $random->getBytes(BYTES_A_SECOND / 10)) ?: [];
            fwrite($file, pack('s*', ...array_map(static fn(int $value): int => intdiv($value * $level, 32_768), $noise)));
        }
        fclose($file);
        GuideTrack::ofFile($path)->keepShape();
    }

    return $path;
};
$clip = static fn(string $id, string $device, string $path, int $seconds): LineupClip => new LineupClip(
    $id,
    $device,
    $device === 'S',
    $seconds * Ticks::PER_SECOND,
    sound: static fn(): GuideTrack => GuideTrack::ofFile($path),
);
$measured = static function (string $what, int $bar, callable $work): void {
    gc_collect_cycles();
    memory_reset_peak_usage();
    $begin = hrtime(true);
    $found = $work();
    $peak = memory_get_peak_usage(true) / 1_048_576;
    $seconds = (hrtime(true) - $begin) / 1e9;
    Bars::check(sprintf('hours    %-36s %4d MB (bar %d MB), %.0f s, %s', $what, $peak, $bar, $seconds, $found), $peak < $bar);
};

$clips = [];
for ($hour = 0; $hour < $hours; $hour++) {
    $clips[] = $clip("r$hour", 'S', $made("r$hour", 3600, 100 + $hour), 3600);
}
for ($number = 0; $number < 20; $number++) {
    $path = "$folder/c$number";
    $from = $number * 150 * BYTES_A_SECOND;
    file_put_contents($path, file_get_contents("$folder/r" . $number % $hours, false, null, $from, 60 * BYTES_A_SECOND));
    $clips[] = $clip("c$number", 'A', $path, 60);
}
$clips[] = $clip('alone', 'B', $made('alone', 60, 9), 60);
$measured("line-up of $hours hours by sound", 400, static function () use ($clips): string {
    $placed = array_filter(Lineup::of($clips, [Way::Sound])->placements, static fn($place): bool => $place->sure && $place->device === 'A');

    return count($placed) . ' of 20 pictures sure';
});
$ten = "$folder/ten";
if (!is_file($ten)) {
    for ($hour = 0; $hour < 10; $hour++) {
        file_put_contents($ten, file_get_contents("$folder/r" . $hour % $hours), FILE_APPEND);
    }
}
$measured('claps of ten hours', 128, static fn(): string => count(Claps::of(GuideTrack::ofFile($ten))) . ' found');
$measured('shape of ten hours', 128, static function () use ($ten): string {
    GuideTrack::ofFile($ten)->keepShape();

    return 'kept';
});
$minute = LtcWriter::write(FrameRate::parse('25'), '10:00:00:00', '10:00:59:24');
$measured('timecode of ten hours', 64, static function () use ($minute): string {
    $listener = new LtcListener();
    for ($n = 0; $n < 600; $n++) {
        $listener->hear($minute);
    }
    $listener->end();

    return iterator_count($listener->frames()) . ' frames';
});
exit(Bars::status());
