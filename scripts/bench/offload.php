<?php

declare(strict_types=1);

// Offload with verification to two destinations, against the floor: cp to both, written down to the disk (`sync`), and
// xxhsum over the card and over both copies as the disk holds them, for the offload reads those past the page cache. What
// that costs is said beside it. The better of three of each, in turn, each from the same state, so that a busy disk does
// not decide.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;
use Cartella\Core\Custody\Internal\Libc;
use Symfony\Component\Process\Process;

$folder = $argv[1];
const CORE = __DIR__ . '/../../core/bin/cartella-core';

$run = static function (array $command): float {
    $begin = hrtime(true);
    (new Process($command, timeout: 1800))->mustRun();

    return (hrtime(true) - $begin) / 1e9;
};

/** Most memory that the process had, MiB, as the kernel counts it; asked while it runs. */
$offload = static function (array $command): array {
    $begin = hrtime(true);
    $process = new Process($command, timeout: 1800);
    $process->start();
    $peak = 0;
    while ($process->isRunning()) {
        if (preg_match('/VmHWM:\s+(\d+)/', (string) @file_get_contents('/proc/' . $process->getPid() . '/status'), $part) === 1) {
            $peak = max($peak, (int) $part[1]);
        }
        usleep(5_000);
    }
    if (!$process->isSuccessful()) {
        throw new RuntimeException('The offload failed: ' . $process->getErrorOutput());
    }

    return [(hrtime(true) - $begin) / 1e9, $peak / 1024];
};

$card = static function (int $count, int $bytes) use ($folder, $run): void {
    $run(['rm', '-rf', '--', $folder]);
    mkdir($folder . '/CARD', 0777, true);
    $block = random_bytes(1 << 20);
    for ($file = 0; $file < $count; $file++) {
        $out = fopen(sprintf('%s/CARD/C%04d.mov', $folder, $file), 'wb');
        for ($left = $bytes; $left > 0; $left -= strlen($block)) {
            fwrite($out, substr(pack('V', $file * 1000 + intdiv($left, 1 << 20)) . $block, 0, min($left, strlen($block))));
        }
        fclose($out);
    }
};

// Small files stay until the end: ext4 searches long for an inode where thousands were deleted a minute ago, which
// would measure the clearing up instead of the copying. Large ones go at once, or they would fill the page cache.
$place = static function (string $name, bool $keep) use ($folder, $run): string {
    static $last = null;
    if ($last !== null && !$keep) {
        $run(['rm', '-rf', '--', $last]);
    }
    $last = "$folder/$name";
    mkdir("$last/a", 0777, true);
    mkdir("$last/b");
    $run(['sync']);

    return $last;
};

/** Seconds in which all files below are hashed. */
$hash = static fn(string $below): float => $run(['find', $below, '-type', 'f', '-exec', 'xxhsum', '-H2', '{}', '+']);
/** What is below leaves the page cache; it is on the disk already. */
$forget = static function (string $below): void {
    foreach (
        new RecursiveIteratorIterator(
            new RecursiveDirectoryIterator($below, FilesystemIterator::SKIP_DOTS | FilesystemIterator::CURRENT_AS_PATHNAME),
        )
        as $file
    ) {
        Libc::forget($file);
    }
};

foreach (['40 x 100 MB' => [40, 100_000_000, 1.15], '4000 x 100 kB' => [4000, 100_000, 1.3]] as $title => [$count, $bytes, $bar]) {
    $card($count, $bytes);
    $floor = $ours = INF;
    $peak = 0.0;
    $cached = INF;
    for ($round = 0; $round < 3; $round++) {
        $to = $place("floor-$count-$round", $bytes < 1_000_000);
        $copied = $run(['cp', '-r', "$folder/CARD", "$to/a/"]) + $run(['cp', '-r', "$folder/CARD", "$to/b/"]);
        $hashed = array_map($hash, ["$folder/CARD", "$to/a/CARD", "$to/b/CARD"]);
        $flushed = $run(['sync']);
        $forget("$to/a/CARD");
        $forget("$to/b/CARD");
        $fromMedium = $hash("$to/a/CARD") + $hash("$to/b/CARD");
        $cached = min($cached, $copied + array_sum($hashed) + $flushed);
        $floor = min($floor, $copied + $flushed + $hashed[0] + $fromMedium);
        $to = $place("ours-$count-$round", $bytes < 1_000_000);
        [$time, $memory] = $offload([CORE, 'offload', "$folder/CARD", "$to/a", "$to/b"]);
        $ours = min($ours, $time);
        $peak = max($peak, $memory);
    }
    Bars::check(
        sprintf(
            'offload  %-14s %6.2f s, cp twice, sync, xxhsum of the card and of both copies from the disk %6.2f ' .
                's: %.2fx (bar %.2fx); memory %.0f MiB',
            $title,
            $ours,
            $floor,
            $ours / $floor,
            $bar,
            $peak,
        ),
        $ours / $floor <= $bar,
    );
    printf("offload  %-14s what reading the disk costs: the same with xxhsum from the page cache takes %.2f s\n", $title, $cached);
}

$run(['rm', '-rf', '--', $folder]);
mkdir($folder . '/CARD', 0777, true);
$big = fopen($folder . '/CARD/C0001.mov', 'wb');
ftruncate($big, 6_000_000_000);
fclose($big);
[$time, $peak] = $offload([CORE, 'offload', "$folder/CARD", "$folder/c"]);
Bars::check(sprintf('offload  one file of 6 GB %6.2f s; memory %.0f MiB (bar 64 MiB)', $time, $peak), $peak <= 64);
$run(['rm', '-rf', '--', $folder]);
exit(Bars::status());
