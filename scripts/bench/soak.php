<?php

declare(strict_types=1);

// Three people's shooting day in fast motion beside 60 000 clips: one brings cards in and out and lays them on one clock, one logs, writes
// notes, takes back and loses connections, one looks around, works on the same row as the second, sleeps and wakes, and has a page open all
// day in which what came in is watched. Whether answers come as soon at the end as at the beginning, whether memory stays, whether
// anything is lost, and whether a log has an error that nobody expected.
// Use: soak.php MINUTES

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;
use Cartella\Core\Time\Ticks;
use Symfony\Component\Process\Process;
use Tests\Browser\Support\SixtyClips;

const PEOPLE = ['cards', 'log', 'looks', 'page'];
/** On each camera's card beside its clip. */
const FILES = 40;
/** What is not milliseconds. */
const HELD = ['heap' => 'bytes of scripts', 'renderer' => 'bytes of the page', 'nodes' => 'elements'];

$var = (string) getenv('CARTELLA_VAR');
$minutes = max(1, (int) ($argv[1] ?? 10));
/** Bytes that the services of this profile hold, shared pages counted once by each that uses them. */
$memory = static function () use ($var): int {
    $sum = 0;
    foreach (glob('/proc/[0-9]*/environ') ?: [] as $file) {
        $pid = dirname($file);
        if (
            str_contains((string) @file_get_contents($file), "CARTELLA_SERVICE=$var/run\0") &&
            preg_match('/^Pss:\s+(\d+)/m', (string) @file_get_contents("$pid/smaps_rollup"), $kilobytes) === 1
        ) {
            $sum += 1024 * (int) $kilobytes[1];
        }
    }

    return $sum;
};
$logs = glob("$var/storage/logs/*.log") ?: [];
$sizes = array_combine($logs, array_map(filesize(...), $logs));
$people = $files = [];
foreach (PEOPLE as $person) {
    $files[$person] = "$var/soak-$person.jsonl";
    $people[$person] = new Process(
        [PHP_BINARY, __DIR__ . '/soak-person.php', $person, (string) ($minutes * 60), $files[$person]],
        timeout: null,
    );
    $people[$person]->start();
}
$held = [];
$begun = microtime(true);
while (array_filter($people, static fn(Process $one): bool => $one->isRunning()) !== []) {
    sleep(2);
    $held[] = [microtime(true) - $begun, $memory()];
}
foreach ($people as $person => $process) {
    Bars::check(
        sprintf(
            'soak     %s ends its day %s',
            $person,
            $process->isSuccessful() ? 'well' : trim(substr($process->getErrorOutput(), 0, 400)),
        ),
        $process->isSuccessful(),
    );
}
$times = $made = [];
$whole = $minutes * 60;
foreach ($files as $file) {
    foreach (file($file) ?: [] as $line) {
        [$at, $what, $time] = json_decode($line, true);
        if (preg_match('/\A(made|take|laid) /', $what) === 1) {
            $made[] = $what;
        } else {
            $third = (int) min(2, floor((3 * ($at - $begun)) / $whole));
            $times[$what][$third][] = $time;
        }
    }
    unlink($file);
}
$p95 = static function (array $all): float {
    sort($all);

    return $all[(int) floor(0.95 * (count($all) - 1))] ?? 0.0;
};
// What others take from this machine in a part of the run, its least answer tells.
$floor = max(1.0, $p95($times['floor'][2] ?? []) / max(0.1, $p95($times['floor'][0] ?? [])));
foreach ($times as $what => $thirds) {
    [$first, $last] = [$thirds[0] ?? [], $thirds[2] ?? []];
    if (isset(HELD[$what])) {
        // The first turn loads what every later one finds there.
        [$early, $late] = [max([0.0, ...array_slice($first, 1)]), max([0.0, ...$last])];
        Bars::check(
            sprintf(
                'soak     the page holds %.1f M %s at the beginning, %.1f M at the end (bar 1.25x)',
                $early / 1e6,
                HELD[$what],
                $late / 1e6,
            ),
            $early > 0 && $late < 1.25 * $early,
        );

        continue;
    }
    if (count($first) < 5 || count($last) < 5) {
        printf("soak     %-14s %5d times: too few to compare\n", $what, array_sum(array_map(count(...), $thirds)));

        continue;
    }
    $bar = 1.5 * $floor * $p95($first) + 20;
    // A fifth more is what one third of a run differs from another by itself; a few milliseconds are no growth.
    Bars::check(
        sprintf(
            'soak     %-14s %5d times, p95 %6.1f ms in the first third, %6.1f ms in the last (bar %.1f ms)',
            $what,
            array_sum(array_map(count(...), $thirds)),
            $p95($first),
            $p95($last),
            $bar,
        ),
        $p95($last) < $bar,
    );
}
$early = array_column(array_filter($held, static fn(array $one): bool => $one[0] > $whole / 6 && $one[0] < $whole / 3), 1);
$late = array_column(array_filter($held, static fn(array $one): bool => $one[0] > (2 * $whole) / 3), 1);
Bars::check(
    sprintf('soak     services hold %d MB at the beginning, %d MB at the end (bar 1.25x)', max($early) / 1e6, max($late) / 1e6),
    max($late) < 1.25 * max($early),
);

// Nothing is lost: every card is there twice, every take has the words that were typed last.
$ask = require __DIR__ . '/client.php';
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = '/api/productions/' . $session['productions'][0]['ulid'];
[, $facts] = $ask($production);
$day = "$production/days/" . $facts['days'][0]['ulid'];
[, $answer] = $ask("$day/cards");
$safe = array_column(
    array_filter($answer['cards'], static fn(array $one): bool => $one['is_safe'] || $one['released_at'] !== null),
    'roll',
);
$cards = $takes = $laid = $beside = 0;
$lost = [];
$placed = SixtyClips::database()->prepare(
    'SELECT placements.start_ticks, placements.is_sure FROM placements JOIN clips ON clips.id = clip_id WHERE clips.ulid = ?',
);
foreach ($made as $what) {
    [$kind, $name] = explode(' ', $what, 2);
    if ($kind === 'made') {
        $cards++;
        in_array($name, $safe, true) || ($lost[] = "$name is not safe");
        foreach (['shuttle-1', 'nearline'] as $store) {
            $folders = glob("$var/stores/$store/*/Day */[AS]/$name") ?: [];
            $files = $name[0] === 'K' ? FILES + 1 : 1;
            (count($folders) === 1 && count(glob("$folders[0]/{S,K,8}*", GLOB_BRACE) ?: []) === $files) || ($lost[] = "$name on $store");
        }
    } elseif ($kind === 'laid') {
        $starts = [];
        foreach (explode(' ', $name) as $clip) {
            $placed->execute([$clip]);
            $starts[] = $placed->fetch(PDO::FETCH_ASSOC) ?: ['start_ticks' => 0, 'is_sure' => 0];
        }
        $laid++;
        // The recorder ran two seconds sooner.
        $apart = abs($starts[0]['start_ticks'] - $starts[1]['start_ticks']) / Ticks::PER_SECOND;
        $beside += abs($apart - 2) < 0.02 && min(array_column($starts, 'is_sure')) > 0 ? 0 : 1;
    } else {
        $takes++;
        [$name, $words] = explode(' ', $name, 2);
        [, $rows] = $ask("$day/takes?ulids=$name");
        $is = $rows['takes'][0]['description'] ?? 'no take';
        $is === $words || ($lost[] = "$words of " . ($rows['takes'][0]['slate'] ?? $name) . " is '$is'");
    }
}
Bars::check(
    sprintf('soak     %d cards and %d takes, %d lost (bar 0) %s', $cards, $takes, count($lost), implode('; ', array_slice($lost, 0, 6))),
    $lost === [] && $cards > 0 && $takes > 0,
);
Bars::check(
    sprintf('soak     %d pairs laid on one clock, %d of them not to the frame (bar 0)', $laid, $beside),
    $beside === 0 && $laid > 0,
);
$slates = array_count_values(array_column($ask("$day/log")[1]['takes'], 'slate'));
$twice = count(array_filter($slates, static fn(int $count): bool => $count > 1));
Bars::check(sprintf('soak     %d slates are there twice (bar 0)', $twice), $twice === 0);
$errors = [];
foreach (glob("$var/storage/logs/*.log") ?: [] as $log) {
    $errors = [
        ...$errors,
        ...preg_grep('/\.(ERROR|CRITICAL|ALERT|EMERGENCY):/', explode("\n", (string) file_get_contents($log, offset: $sizes[$log] ?? 0))) ?:
        [],
    ];
}
Bars::check(
    sprintf(
        'soak     %d errors in the logs (bar 0)%s',
        count($errors),
        $errors === [] ? '' : ': ' . substr((string) reset($errors), 0, 200),
    ),
    $errors === [],
);
exit(Bars::status());
