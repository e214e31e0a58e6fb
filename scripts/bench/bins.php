<?php

declare(strict_types=1);

// Bins with 200 000 clips, 40 000 takes and 400 bins of people's own in one production: the tree, a bin of 20 000, a rule of four
// conditions, the search, 5 000 references moved. The bars are of milliseconds, since hands wait for them; a floor stands beside each.

require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;

const ROUNDS = 25;

$ask = require __DIR__ . '/client.php';
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$base = '/api/productions/' . $session['productions'][0]['ulid'];
[, $tree] = $ask("$base/bins");
[$many, $other, $third] = array_column(array_slice($tree['own'], 0, 3), 'key');
[, $facts] = $ask($base);
$day = $facts['days'][3]['ulid'];

/** @param  callable(int): array{string, array<mixed>|null}  $request  of a round: the path and what is sent */
$measure = static function (string $title, float $bar, int $rounds, callable $request) use ($ask): void {
    $times = $floor = [];
    for ($round = 0; $round < $rounds + 2; $round++) {
        [$alone] = $ask('/api/session');
        [$time, $answer] = $ask(...$request($round));
        if ($round >= 2) {
            $times[] = $time; // the first two warm the caches
            $floor[] = $alone;
        }
    }
    sort($times);
    sort($floor);
    $p95 = $times[(int) (0.95 * count($times))];
    Bars::check(
        sprintf(
            'bins     %-34s p50 %6.1f ms, p95 %6.1f ms (bar %.0f ms; floor %.1f ms)%s',
            $title,
            $times[intdiv(count($times), 2)],
            $p95,
            $bar,
            $floor[intdiv(count($floor), 2)],
            isset($answer['total']) ? ", {$answer['total']} found" : '',
        ),
        $p95 <= $bar,
    );
};
$is = static fn(string $about, string $test, string ...$values): array => compact('about', 'test') + ['values' => $values];
$rule = static fn(array ...$parts): array => ['rule' => ['join' => 'all', 'parts' => $parts], 'limit' => 200];

$measure('the tree, 400 bins', 100, ROUNDS, static fn(): array => ["$base/bins", null]);
$measure('a bin of 20 000, its first page', 1000, ROUNDS, static fn(): array => ["$base/bins/$many/items", null]);
$measure('a bin of 20 000, a late page', 1000, ROUNDS, static fn(): array => ["$base/bins/$many/items?from=16000", null]);
$measure('a bin of 20 000 by its length', 1000, ROUNDS, static fn(): array => ["$base/bins/$many/items?order=length&down=1", null]);
$measure(
    'a rule of four about takes',
    150,
    ROUNDS,
    static fn(int $n): array => [
        "$base/bins/look",
        $rule($is('entry', 'is', 'take'), $is('status', 'is', 'circled'), $is('notes', 'contains', "frame $n"), $is('cut', 'blank')),
    ],
);
$measure(
    'a rule of four about clips',
    150,
    ROUNDS,
    static fn(int $n): array => [
        "$base/bins/look",
        $rule($is('entry', 'is', 'clip'), $is('day', 'is', $day), $is('device', 'is', 'B'), $is('description', 'contains', 'What')),
    ],
);
$measure(
    'a rule of four, wide',
    150,
    ROUNDS,
    static fn(int $n): array => [
        "$base/bins/look",
        $rule($is('status', 'is', 'circled'), $is('size', 'is', 'Wide'), $is('length', 'least', '5'), $is('bin', 'blank')),
    ],
);
$measure('the search, a slate', 150, ROUNDS, static fn(int $n): array => ["$base/search?q=" . (3 + $n) . 'A/4', null]);
$measure('the search, a word', 150, ROUNDS, static fn(int $n): array => ["$base/search?q=gull", null]);
$measure('the search, a clip', 150, ROUNDS, static fn(int $n): array => ["$base/search?q=B0" . (10 + $n) . 'C0123', null]);
[, $all] = $ask("$base/bins/$many/refs");
$refs = array_slice($all['refs'], 0, 5000);
$measure('5 000 references moved', 1000, 8, static function (int $n) use ($base, $other, $third, $refs): array {
    [$to, $from] = $n % 2 === 0 ? [$other, $third] : [$third, $other];

    return ["$base/bins/$to/items", ['refs' => $refs, 'from' => $from]];
});
exit(Bars::status());
