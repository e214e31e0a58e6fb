<?php

declare(strict_types=1);

// The bench page with 30 cards of together 40 000 files in the readers, against the smallest request of the same server.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;

$ask = require __DIR__ . '/client.php';
$var = (string) getenv('CARTELLA_VAR');
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = '/api/productions/' . $session['productions'][0]['ulid'];
[, $facts] = $ask($production);
$page = "$production/days/{$facts['days'][0]['ulid']}/cards";
for ($card = 0; $card < 30; $card++) {
    mkdir(sprintf('%s/volumes/.Q%03d', $var, $card), 0777, true);
    for ($file = 0; $file < 1334; $file++) {
        file_put_contents(sprintf('%s/volumes/.Q%03d/Q%03dC%04d.dat', $var, $card, $card, $file), (string) $file);
    }
    rename(sprintf('%s/volumes/.Q%03d', $var, $card), sprintf('%s/volumes/Q%03d', $var, $card));
}
for ($seconds = 0; $seconds < 60 && count($ask($page)[1]['volumes']) < 30; $seconds++) {
    sleep(1);
}
$measure = static function (string $path) use ($ask): array {
    $times = [];
    for ($round = 0; $round < 45; $round++) {
        [$time] = $ask($path);
        if ($round >= 5) {
            $times[] = $time;
        }
    }
    sort($times);

    return [$times[intdiv(count($times), 2)], $times[(int) (0.95 * count($times))]];
};
[$floor] = $measure('/api/session');
[$p50, $p95] = $measure($page);
Bars::check(
    sprintf(
        'cards    bench page, 30 cards, 40 000 files  p50 %.1f ms (%.1fx the session request), p95 %.1f ms (bar 100 ms)',
        $p50,
        $p50 / $floor,
        $p95,
    ),
    $p95 < 100,
);
(new Symfony\Component\Process\Process(['rm', '-rf', '--', ...glob("$var/volumes/Q*")]))->mustRun();
exit(Bars::status());
