<?php

declare(strict_types=1);

// Three people's shooting day in fast motion beside 60 000 clips: one brings cards in and out, one logs, takes back and loses connections,
// one looks around, works on the same row as the second, and sleeps and wakes. Whether answers come as soon at the end as at the
// beginning, whether memory stays, whether anything is lost, and whether a log has an error that nobody expected.
// Use: soak.php MINUTES, which starts itself as soak.php PERSON SECONDS FILE

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;
use Symfony\Component\Process\Process;

const PEOPLE = ['cards' => 'bench', 'log' => 'second', 'looks' => 'third'];
const FILES = 40;
const HANGS_UP_AFTER = 12;

$var = (string) getenv('CARTELLA_VAR');
if (isset($argv[2])) {
    [, $person, $seconds, $file] = $argv;
    $ask = require __DIR__ . '/client.php';
    [, $session] = $ask('/api/session', ['email' => PEOPLE[$person] . '@lowwater.test', 'password' => 'tide-mill']);
    $production = '/api/productions/' . $session['productions'][0]['ulid'];
    [, $facts] = $ask($production);
    $day = "$production/days/" . $facts['days'][0]['ulid'];
    $end = time() + (int) $seconds;
    $out = fopen($file, 'w');
    $note = static fn(string $what, float $time): int => (int) fwrite($out, json_encode([microtime(true), $what, $time]) . "\n");
    $timed = static function (string $what, string $path, ?array $body = null, array $more = []) use ($ask, $note): array {
        $answer = $ask($path, $body, 0, $more);
        $note($what, $answer[0]);

        return $answer;
    };
    // The row that two people work on.
    $shared = static function (string $take, string $words) use ($timed, $ask, $day): void {
        [, $sheet] = $ask("$day/takes?ulids=$take");
        $was = (string) ($sheet['takes'][0]['description'] ?? '');
        $timed(
            'shared row',
            "$day/takes",
            ['edits' => [['take' => $take, 'changes' => ['description' => ['was' => $was, 'now' => $words]]]]],
            ['method' => 'PATCH', 'takes' => [409]],
        );
    };
    [, $sheet] = $ask("$day/log");
    $common = $sheet['takes'][0]['ulid'];
    for ($turn = 1; time() < $end; $turn++) {
        if ($person === 'cards') {
            $roll = sprintf('S%03d', $turn);
            mkdir("$var/volumes/.$roll");
            for ($n = 0; $n < FILES; $n++) {
                file_put_contents(sprintf('%s/volumes/.%s/S%04d.bin', $var, $roll, $n), random_bytes(mt_rand(0, 100_000)));
            }
            rename("$var/volumes/.$roll", "$var/volumes/$roll");
            $begun = microtime(true);
            $ask("$day/volumes/$roll/offload", ['roll' => $roll, 'device' => 'A'], 30);
            do {
                usleep(200_000);
                [, $answer] = $timed('cards', "$day/cards");
                $card = array_values(array_filter($answer['cards'], static fn(array $one): bool => $one['roll'] === $roll))[0] ?? null;
            } while (($card === null || !$card['is_safe']) && microtime(true) - $begun < 120);
            $note('card in', 1000 * (microtime(true) - $begun));
            $ask("/api/productions/{$session['productions'][0]['ulid']}/cards/$card[ulid]/release", ['words' => null], 0, [
                'takes' => [409, 422],
            ]);
            (new Process(['rm', '-rf', '--', "$var/volumes/$roll"]))->mustRun();
            $note("made $roll", 0);
        } elseif ($person === 'log') {
            $name = sprintf('S-%s-%d', bin2hex(random_bytes(8)), $turn);
            $more = ['headers' => ["Idempotency-Key: $name"]];
            $body = ['text' => sprintf('%dZ/%d', 900 + intdiv($turn, 50), 1 + ($turn % 50)), 'row' => null];
            // Now and then the line goes dead in the middle, and the page says it again.
            [, $typed, , $status] =
                $turn % 7 === 0
                    ? $ask("$day/log/line", $body, 0, ['hang_up' => HANGS_UP_AFTER, 'takes' => [0]] + $more)
                    : $timed('log line', "$day/log/line", $body, $more);
            if ($status === 0) {
                usleep(300_000);
                $more['headers'][] = 'X-Again: 1';
                [, $typed] = $timed('said again', "$day/log/line", $body, $more);
            }
            $words = "turn $turn";
            $timed(
                'edit',
                "$day/takes",
                ['edits' => [['take' => $typed['take'], 'changes' => ['description' => ['was' => '', 'now' => $words]]]]],
                ['method' => 'PATCH'],
            );
            if ($turn % 5 === 0) {
                $timed('undo', "$production/undo", []);
                $timed('redo', "$production/redo", []);
            }
            $turn % 3 === 0 ? $shared($common, "second $turn") : null;
            $note("take $typed[take] $words", 0);
        } else {
            $timed('day sheet', "$day/sheet");
            $timed('log sheet', "$day/log");
            $timed('bins', "$production/bins");
            $timed('cuts', "$production/cuts");
            $turn % 2 === 0 ? $shared($common, "third $turn") : null;
            // Asleep for a while, then all that happened meanwhile.
            [, $changes] = $ask("$production/changes");
            usleep($turn % 10 === 0 ? 3_000_000 : 100_000);
            $timed('what happened', "$production/changes?after=" . max(0, $changes['last'] - 20));
        }
    }
    exit(0);
}

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
foreach (array_keys(PEOPLE) as $person) {
    $files[$person] = "$var/soak-$person.jsonl";
    $people[$person] = new Process([PHP_BINARY, __FILE__, $person, (string) ($minutes * 60), $files[$person]], timeout: null);
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
        if (preg_match('/\A(made|take) /', $what) === 1) {
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
foreach ($times as $what => $thirds) {
    [$first, $last] = [$thirds[0] ?? [], $thirds[2] ?? []];
    if (count($first) < 5 || count($last) < 5) {
        continue;
    }
    // A fifth more is what one third of a run differs from another by itself; a few milliseconds are no growth.
    Bars::check(
        sprintf(
            'soak     %-14s %5d times, p95 %6.1f ms in the first third, %6.1f ms in the last (bar %.1f ms)',
            $what,
            array_sum(array_map(count(...), $thirds)),
            $p95($first),
            $p95($last),
            1.5 * $p95($first) + 20,
        ),
        $p95($last) < 1.5 * $p95($first) + 20,
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
$lost = $cards = $takes = 0;
foreach ($made as $what) {
    [$kind, $name] = explode(' ', $what, 3);
    if ($kind === 'made') {
        $cards++;
        $lost += in_array($name, $safe, true) ? 0 : 1;
        foreach (['shuttle-1', 'nearline'] as $store) {
            $folders = glob("$var/stores/$store/*/Day */A/$name") ?: [];
            $lost += count($folders) === 1 && count(glob("$folders[0]/S*.bin") ?: []) === FILES ? 0 : 1;
        }
    } else {
        $takes++;
        [, $rows] = $ask("$day/takes?ulids=$name");
        $lost += ($rows['takes'][0]['description'] ?? '') === explode(' ', $what, 3)[2] ? 0 : 1;
    }
}
Bars::check(sprintf('soak     %d cards and %d takes, %d lost (bar 0)', $cards, $takes, $lost), $lost === 0 && $cards > 0 && $takes > 0);
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
