<?php

declare(strict_types=1);

// Offloads cards of 2 000 files through the application while a copy worker, php-fpm or the database is killed again
// and again, and looks afterwards whether every file is there, verified, once, and in a valid manifest.
// Use: kills.php KILLS SEED

require __DIR__ . '/../../vendor/autoload.php';

use Cartella\Core\Custody\Verify;
use Symfony\Component\Process\Process;

const FILES = 2000;
const WAIT = 120;

[$kills, $seed] = [(int) ($argv[1] ?? 200), (int) ($argv[2] ?? 1)];
mt_srand($seed);
$var = (string) getenv('CARTELLA_VAR');
$ask = require __DIR__ . '/client.php';
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = '/api/productions/' . $session['productions'][0]['ulid'];
[, $facts] = $ask($production);
$day = $facts['days'][0]['ulid'];

$pids = static function (string $program) use ($var): array {
    $process = new Process(['supervisorctl', '-c', "$var/run/supervisord.conf", 'pid', $program]);
    $process->run();

    return array_values(array_filter(array_map(intval(...), explode("\n", $process->getOutput())), static fn(int $pid): bool => $pid > 1));
};
$recover = static fn(): int => (new Process(['php', 'artisan', 'cartella:recover'], dirname(__DIR__, 2)))->run();
$card = static function (string $roll) use ($ask, $production, $day): array {
    [, $answer] = $ask("$production/days/$day/cards", null, WAIT);

    return array_values(array_filter($answer['cards'], static fn(array $one): bool => $one['roll'] === $roll))[0] ?? [
        'state' => 'new',
        'is_safe' => false,
        'verified_files' => 0,
        'faults' => [],
    ];
};

$givenUp = 0;
$done = ['copy' => 0, 'php' => 0, 'mariadb' => 0];
for ($round = 1; array_sum($done) < $kills; $round++) {
    $roll = sprintf('K%03d', $round);
    mkdir("$var/volumes/.$roll");
    for ($file = 0; $file < FILES; $file++) {
        file_put_contents(sprintf('%s/volumes/.%s/K%04d.bin', $var, $roll, $file), random_bytes(mt_rand(0, 200_000)));
    }
    rename("$var/volumes/.$roll", "$var/volumes/$roll");
    $ask("$production/days/$day/volumes/$roll/offload", ['roll' => $roll, 'device' => 'A'], WAIT);
    $since = time();
    while (!$card($roll)['is_safe']) {
        if (time() - $since > 600) {
            throw new RuntimeException("$roll does not come in: " . json_encode($card($roll)));
        }
        if (array_sum($done) < $kills) {
            usleep(mt_rand(20_000, 900_000));
            // A copy worker twice as often as the others: it is the one that writes.
            $victim = ['copy', 'copy', 'php', 'mariadb'][mt_rand(0, 3)];
            foreach ($victim === 'copy' ? [...$pids('copy:copy-0'), ...$pids('copy:copy-1')] : $pids($victim) as $pid) {
                posix_kill($pid, SIGKILL);
            }
            $done[$victim]++;
        }
        $recover();
        $state = $card($roll);
        if ($state['state'] === 'fault') {
            // Three kills before a byte was written: the desk gives up and says so, and a person tries again.
            if (!str_contains((string) ($state['faults'][0]['reason'] ?? ''), 'each time its worker died')) {
                throw new RuntimeException("$roll has a fault: " . json_encode($state['faults']));
            }
            $givenUp++;
            $ask("$production/days/$day/volumes/$roll/offload", ['roll' => $roll, 'device' => 'A'], WAIT);
        }
    }
    foreach (['shuttle-1', 'nearline'] as $store) {
        $folders = glob("$var/stores/$store/*/Day */A/$roll") ?: [];
        $answer = count($folders) === 1 ? Verify::folder($folders[0]) : ['ok' => false];
        $same = 0;
        for ($file = 0; $file < FILES && $answer['ok']; $file++) {
            $name = sprintf('K%04d.bin', $file);
            $same += (int) (hash_file('xxh128', "$var/volumes/$roll/$name") === hash_file('xxh128', "$folders[0]/$name"));
        }
        $names = count($folders) === 1 ? count(scandir($folders[0])) - 3 : 0;
        if (!$answer['ok'] || $same !== FILES || $names !== FILES) {
            throw new RuntimeException(
                sprintf(
                    '%s on %s is not whole: %d folders, %d files, %d the same, %s',
                    $roll,
                    $store,
                    count($folders),
                    $names,
                    $same,
                    json_encode($answer),
                ),
            );
        }
    }
    printf(
        "kills    %s: %d files on two volumes, verified, none lost, none twice, manifests valid; %d kills so far\n",
        $roll,
        FILES,
        array_sum($done),
    );
    (new Process(['rm', '-rf', '--', "$var/volumes/$roll"]))->mustRun();
}
printf(
    "kills    %d: copy workers %d, php-fpm %d, database %d; given up and tried again %d times\n",
    array_sum($done),
    $done['copy'],
    $done['php'],
    $done['mariadb'],
    $givenUp,
);
