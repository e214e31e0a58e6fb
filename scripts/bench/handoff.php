<?php

declare(strict_types=1);

// Hand-off at size: a package of 500 takes planned, lists of 2 000 events written and read, 2 000 events linked among 60 000
// clips, and packing against copying and hashing the same files. Bars in seconds are those of a person who waits.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use App\Domain\Handoff\PackedFiles;
use Cartella\Bench\Bars;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Exchange\Aaf\AafReader;
use Cartella\Core\Exchange\Aaf\AafWriter;
use Cartella\Core\Exchange\Edl\EdlReader;
use Cartella\Core\Exchange\Edl\EdlWriter;
use Cartella\Core\Exchange\Otio\OtioReader;
use Cartella\Core\Exchange\Otio\OtioWriter;
use Cartella\Core\Time\FrameRate;

/** Seconds. */
const PLANNED = 2.0;
const LISTED = 1.0;
const LINKED = 2.0;

/** Times the floor. */
const PACKED = 1.2;

[, $folder] = $argv;
$rate = FrameRate::parse('25');
$frame = $rate->ticksPerFrame();
$timed = static function (callable $work): array {
    $begin = hrtime(true);
    $result = $work();

    return [(hrtime(true) - $begin) / 1e9, $result];
};
$say = static fn(string $what, float $seconds, float $bar, string $more = '') => Bars::check(
    sprintf('handoff  %-38s %.2f s (bar %.1f s)%s', $what, $seconds, $bar, $more),
    $seconds <= $bar,
);

$items = [];
$at = 0;
foreach (file("$folder/clips.tsv", FILE_IGNORE_NEW_LINES) ?: [] as $line) {
    [$name, $start, $length] = explode("\t", $line);
    $start = intdiv((int) $start, $frame) * $frame;
    $source = new Source("theirs $name $start", $name, "media/$name.mov", null, $start, max(60 * $frame, (int) $length), $rate);
    $items[] = new Item($name, $source, 10 * $frame, 40 * $frame, $at);
    $at += 40 * $frame;
}
count($items) === 2000 || throw new RuntimeException('The database holds no 2 000 clips.');
$cut = new Sequence('Bench', $rate, 90_000 * $frame, [new Track(TrackKind::Picture, 'V', $items)]);
foreach (
    [
        'edl' => [static fn(): array => EdlWriter::write($cut), static fn(array $texts): mixed => EdlReader::read($texts, $rate)],
        'otio' => [static fn(): string => OtioWriter::write($cut), OtioReader::read(...)],
        'aaf' => [static fn(): string => AafWriter::write([$cut], [], $rate, 0), AafReader::read(...)],
    ]
    as $format => [$write, $read]
) {
    [$seconds, $written] = $timed($write);
    $say("2 000 events written as $format", $seconds, LISTED);
    [$seconds, $back] = $timed(static fn(): mixed => $read($written));
    count($back->sequence->tracks[0]->items) === 2000 || throw new RuntimeException("The $format lost events.");
    $say("2 000 events read from $format", $seconds, LISTED);
}

$ask = require __DIR__ . '/client.php';
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = $session['productions'][0]['ulid'];
[, $facts] = $ask("/api/productions/$production");
$day = $facts['days'][0]['ulid'];
[, $sheet] = $ask("/api/productions/$production/days/$day/log");
$takes = array_slice(array_column($sheet['takes'], 'ulid'), 0, 500);
$choice = ['days' => [], 'bins' => [], 'takes' => $takes];
$ask("/api/productions/$production/handoffs/plan", $choice);
[$milliseconds, $plan] = $ask("/api/productions/$production/handoffs/plan", $choice);
$say('a package of ' . count($takes) . ' takes planned', $milliseconds / 1000, PLANNED, sprintf(', %d clips', $plan['clips']));

file_put_contents("$folder/bench.otio", OtioWriter::write($cut));
[$milliseconds, $made] = $ask("/api/productions/$production/received", ['file' => new CURLFile("$folder/bench.otio")]);
[, $received] = $ask("/api/productions/$production/received/$made[ulid]");
$say(
    '2 000 events linked, read and kept',
    $milliseconds / 1000,
    LINKED,
    sprintf(', %d of %d linked', $received['linked'], $received['total']),
);

// Packing: files of a size that proxies have, against a copy and a hash of each.
@mkdir("$folder/source");
foreach (range(1, 40) as $number) {
    is_file("$folder/source/$number") || file_put_contents("$folder/source/$number", random_bytes(40 << 20));
}
$clean = static function (string $what) use ($folder): string {
    exec('rm -rf ' . escapeshellarg("$folder/$what"));
    mkdir("$folder/$what");
    exec('sync');

    return "$folder/$what";
};
$best = ['floor' => INF, 'pack' => INF];
foreach ([1, 2, 3] as $round) {
    $to = $clean('floor');
    [$seconds] = $timed(static function () use ($folder, $to): void {
        foreach (range(1, 40) as $number) {
            copy("$folder/source/$number", "$to/$number");
            if (hash_file('xxh128', "$folder/source/$number") !== hash_file('xxh128', "$to/$number")) {
                throw new RuntimeException('The copy is another one.');
            }
        }
    });
    $best['floor'] = min($best['floor'], $seconds);
    $to = $clean('pack');
    [$seconds] = $timed(static function () use ($folder, $to): void {
        $files = new PackedFiles($to, static fn(int $bytes): null => null);
        foreach (range(1, 40) as $number) {
            $files->copy("$folder/source/$number", "$number", 'one');
        }
        $files->settle(array_fill_keys(array_map(strval(...), range(1, 40)), true));
    });
    $best['pack'] = min($best['pack'], $seconds);
}
Bars::check(
    sprintf(
        'handoff  %-38s %.2f s, copying and hashing %.2f s (%.2fx, bar %.1fx)',
        '40 files of 40 MB packed',
        $best['pack'],
        $best['floor'],
        $best['pack'] / $best['floor'],
        PACKED,
    ),
    $best['pack'] <= PACKED * $best['floor'],
);
exit(Bars::status());
