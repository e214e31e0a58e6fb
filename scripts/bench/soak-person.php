<?php

declare(strict_types=1);

// One person of the soak, until SECONDS have gone. What it did goes into FILE, a line each: when, what, how many milliseconds.
// Use: soak-person.php PERSON SECONDS FILE

require __DIR__ . '/../../vendor/autoload.php';

use Cartella\Core\Tests\Support\WavBuilder;
use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Symfony\Component\Process\Process;
use Tests\Browser\Support\SixtyClips;

const PEOPLE = ['cards' => 'bench', 'log' => 'second', 'looks' => 'third', 'page' => 'third'];
/** Beside the media on each card. */
const FILES = 40;
const CLIP_SECONDS = 6;
const HANGS_UP_AFTER = 12;
const STAGES = ['day', 'log', 'lineup', 'bins', 'cards'];

[, $person, $seconds, $file] = $argv;
$var = (string) getenv('CARTELLA_VAR');
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
/** Asks until it is so; the answer. */
$until = static function (callable $look, string $otherwise): mixed {
    for ($limit = microtime(true) + 180; ($answer = $look()) === null; usleep(200_000)) {
        microtime(true) < $limit || throw new RuntimeException($otherwise);
    }

    return $answer;
};
$done = static fn(string $task): ?string => ($state = $ask("$production/tasks/$task")[1]['state']) === 'done'
    ? $state
    : (in_array($state, ['failed', 'cancelled'], true)
        ? throw new RuntimeException("task $task $state")
        : null);
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

// A card of a camera and one of a recorder that heard the same, from two seconds sooner on. Both are copied, read, laid on one clock,
// given free and taken out of their readers.
$bring = static function (int $turn) use ($ask, $timed, $note, $until, $done, $production, $day, $var): void {
    static $database = null;
    $database ??= SixtyClips::database();
    $rolls = ['A' => sprintf('K%03d', $turn), 'S' => sprintf('R%03d', $turn)];
    $clip = sprintf('K%03dC001', $turn);
    // Before the other clips of the day, which begins at ten.
    $at = 18_000 + 20 * ($turn % 800);
    foreach ($rolls as $roll) {
        mkdir("$var/volumes/.$roll");
    }
    $raw = "$var/soak.raw";
    $ffmpeg = static fn(array $arguments): Process => (new Process(['ffmpeg', '-v', 'error', '-y', ...$arguments]))->mustRun();
    $ffmpeg([
        ...['-f', 'lavfi', '-i', "anoisesrc=r=48000:c=pink:seed=$turn:d=" . (CLIP_SECONDS + 4)],
        ...['-af', sprintf('tremolo=f=%.2f:d=0.9', 1.7 + ($turn % 7) / 5), '-ac', '1', '-f', 's16le', $raw],
    ]);
    $ffmpeg([
        ...['-f', 'lavfi', '-i', 'testsrc2=size=480x270:rate=25', '-f', 's16le', '-ar', '48000', '-ac', '1', '-ss', '2', '-i', $raw],
        ...['-t', (string) CLIP_SECONDS, '-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-c:a', 'pcm_s16le'],
        ...['-timecode', gmdate('H:i:s', $at + 2) . ':00', "$var/volumes/.$rolls[A]/$clip.mov"],
    ]);
    WavBuilder::pcm(0, 1, 16, 48_000, (string) file_get_contents($raw))
        ->withBext(48_000 * $at)
        ->withIxml("<SCENE>800</SCENE><TAKE>$turn</TAKE><SPEED><TIMECODE_RATE>25/1</TIMECODE_RATE></SPEED>")
        ->write("$var/volumes/.$rolls[S]/800-T$turn.wav");
    unlink($raw);
    for ($n = 0; $n < FILES; $n++) {
        file_put_contents(sprintf('%s/volumes/.%s/S%04d.bin', $var, $rolls['A'], $n), random_bytes(mt_rand(0, 100_000)));
    }
    foreach ($rolls as $letter => $roll) {
        rename("$var/volumes/.$roll", "$var/volumes/$roll");
        $begun = microtime(true);
        $ask("$day/volumes/$roll/offload", ['roll' => $roll, 'device' => $letter], 30);
        $card = $until(static function () use ($timed, $day, $roll): ?array {
            foreach ($timed('cards', "$day/cards")[1]['cards'] as $card) {
                if ($card['roll'] === $roll && $card['is_safe']) {
                    return $card;
                }
            }

            return null;
        }, "$roll is not safe");
        $note('card in', 1000 * (microtime(true) - $begun));
        $ask("$production/cards/$card[ulid]/release", ['words' => null], 0, ['takes' => [409, 422]]);
        (new Process(['rm', '-rf', '--', "$var/volumes/$roll"]))->mustRun();
        $note("made $roll", 0);
    }
    $begun = microtime(true);
    $look = $database->prepare('SELECT ulid FROM clips WHERE name IN (?, ?) AND proxied_at IS NOT NULL ORDER BY kind');
    $clips = $until(static function () use ($look, $clip, $turn): ?array {
        $look->execute([$clip, "800-T$turn"]);
        $found = $look->fetchAll(PDO::FETCH_COLUMN);

        return count($found) === 2 ? $found : null;
    }, "$clip and 800-T$turn are not there to be seen and heard");
    $note('to be seen', 1000 * (microtime(true) - $begun));
    [, $task] = $timed('line up', "$day/lineup", ['scope' => 'clips', 'clips' => $clips]);
    $begun = microtime(true);
    $until(static fn(): ?string => $done($task['ulid']), 'the line-up does not end');
    $note('lined up', 1000 * (microtime(true) - $begun));
    $note("laid $clips[0] $clips[1]", 0);
};

// One logs, writes notes, takes back; now and then the line goes dead in the middle, and the page says it again.
$log = static function (int $turn) use ($ask, $timed, $note, $until, $done, $production, $day, $shared, $common, $var): void {
    $more = ['headers' => ['Idempotency-Key: ' . sprintf('S-%s-%d', bin2hex(random_bytes(8)), $turn)]];
    $slate = sprintf('%dZ/%d', 900 + intdiv($turn, 50), 1 + ($turn % 50));
    $body = ['text' => $slate, 'row' => null];
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
    // The take before lends it what is the same for all takes of a setup.
    $was = (string) $ask("$day/takes?ulids=$typed[take]")[1]['takes'][0]['description'];
    $timed(
        'edit',
        "$day/takes",
        ['edits' => [['take' => $typed['take'], 'changes' => ['description' => ['was' => $was, 'now' => $words]]]]],
        ['method' => 'PATCH'],
    );
    $timed('note', "$production/takes/$typed[take]/notes", ['text' => "said at turn $turn", 'at_ticks' => 0]);
    if ($turn % 5 === 0) {
        $timed('undo', "$production/undo", []);
        $timed('redo', "$production/redo", []);
    }
    if ($turn % 10 === 0) {
        // Somebody's notes of the newest takes, as a file.
        $path = "$var/soak-notes.csv";
        file_put_contents($path, "Setup,Take,Comments\n" . str_replace('/', ',', $slate) . ",written at turn $turn\n");
        [, $notes] = $timed('notes file', "$day/notes", ['file' => new CURLFile($path, 'text/csv', "notes-$turn.csv")]);
        $columns = ['0' => 'setup', '1' => 'take', '2' => 'notes'];
        $ask("$production/notes/$notes[ulid]/preview", ['heading' => 0, 'columns' => $columns]);
        $until(static fn(): ?bool => $ask("$production/notes/$notes[ulid]")[1]['report'] === null ? null : true, 'the notes are not read');
        [, $applied] = $ask("$production/notes/$notes[ulid]/apply", []);
        $applied['task'] === null || $until(static fn(): ?string => $done($applied['task']['ulid']), 'the notes do not come in');
    }
    $turn % 3 === 0 ? $shared($common, "second $turn") : null;
    $note("take $typed[take] $words", 0);
};

// One looks around, works on the same row, sleeps for a while and hears then what happened meanwhile.
$look = static function (int $turn) use ($ask, $timed, $production, $day, $shared, $common): void {
    $timed('floor', '/api/session');
    $timed('day sheet', "$day/sheet");
    $timed('log sheet', "$day/log");
    $timed('line-up', "$day/lineup");
    $timed('bins', "$production/bins");
    $timed('cuts', "$production/cuts");
    $turn % 2 === 0 ? $shared($common, "third $turn") : null;
    [, $changes] = $ask("$production/changes");
    usleep($turn % 10 === 0 ? 3_000_000 : 100_000);
    $timed('what happened', "$production/changes?after=" . max(0, $changes['last'] - 20));
};

// The page that the same one has open all day: from stage to stage, what came in is watched, its line goes dead and comes back.
if ($person === 'page') {
    $base = (string) getenv('APP_URL');
    $open = require __DIR__ . '/page.php';
    [$chrome, $seen] = $open($base, PEOPLE['page'] . '@lowwater.test');
    try {
        $tools = new ChromeDevToolsDriver($chrome->driver);
        $address = '/' . basename($production) . '/' . basename($day);
        $chrome->driver->get("$base$address/day");
        $database = SixtyClips::database();
        $go = static function (string $path) use ($chrome): void {
            $chrome->driver->executeScript(
                'history.pushState({}, "", arguments[0]); dispatchEvent(new PopStateEvent("popstate", { state: {} }))',
                [$path],
            );
        };
        // Otherwise the page keeps the last hundred megabytes of what it was answered, for whoever looks on.
        $tools->execute('Network.enable', ['maxTotalBufferSize' => 0, 'maxResourceBufferSize' => 0]);
        for ($turn = 1; time() < $end; $turn++) {
            foreach (STAGES as $stage) {
                $begun = microtime(true);
                $go("$address/$stage");
                $seen(
                    "document.querySelector('.spine .tab.on')?.href.endsWith('/$stage') && " .
                        "document.querySelector('main').innerText.length > 80",
                );
                $note("page $stage", 1000 * (microtime(true) - $begun));
            }
            $clip = $database
                ->query("SELECT ulid FROM clips WHERE name LIKE 'K%C001' AND proxied_at IS NOT NULL ORDER BY id DESC LIMIT 1")
                ->fetchColumn();
            if ($clip !== false) {
                $begun = microtime(true);
                $go("$address/clip/$clip");
                $seen(
                    "document.querySelector('.player')?.dataset.clip === '$clip' && document.querySelector('.player').dataset.frame > ''",
                );
                $note('first picture', 1000 * (microtime(true) - $begun));
                $chrome->driver->executeScript(
                    "document.querySelector('.player').dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }))",
                );
                $seen("Number(document.querySelector('.player').dataset.frame) >= 50");
                $note('watched', 1000 * (microtime(true) - $begun));
            }
            if ($turn % 4 === 0) {
                $line = static fn(bool $isDead): array => $tools->execute('Network.emulateNetworkConditions', [
                    'offline' => $isDead,
                    'latency' => 0,
                    'downloadThroughput' => -1,
                    'uploadThroughput' => -1,
                ]);
                $line(true);
                $seen('document.querySelector(".reach")');
                $line(false);
                $begun = microtime(true);
                $seen('!document.querySelector(".reach")');
                $note('back', 1000 * (microtime(true) - $begun));
            }
            // What it holds, and not what it keeps for as long as there is room.
            $tools->execute('Memory.simulatePressureNotification', ['level' => 'critical']);
            $tools->execute('HeapProfiler.collectGarbage');
            $note('heap', (float) $chrome->driver->executeScript('return performance.memory.usedJSHeapSize'));
            $note('renderer', (float) $chrome->rendererBytes());
            $note('nodes', (float) $chrome->driver->executeScript('return document.getElementsByTagName("*").length'));
        }
    } finally {
        $chrome->quit();
    }
    exit(0);
}
$turns = ['cards' => $bring, 'log' => $log, 'looks' => $look][$person];
for ($turn = 1; time() < $end; $turn++) {
    $turns($turn);
}
