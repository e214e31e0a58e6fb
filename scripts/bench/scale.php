<?php

declare(strict_types=1);

// How the desk grows: work done in an hour by 1, 2 and 4 worker processes, and what a page costs the database with 1, 10 and more
// productions of 60 000 clips beside each other: statements, rows read and bytes sent, which no other load disturbs. The floor is the first
// of each row.
// Use: scale.php workers, or scale.php pages PRODUCTIONS with nothing else at work

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';

use Cartella\Bench\Bars;
use Symfony\Component\Process\Process;
use Tests\Browser\Support\SixtyClips;

/** Tasks of each run of the workers. */
const TASKS = 24;
/** Statements of the watcher of the readers, which goes on meanwhile. */
const NOISE = 6;
/** Rows of small tables that a page may look through for each production. */
const SMALL = 150;
/** What is of the whole desk and not of a production. */
const SHARED =
    '/\A(migrations|users|production_user|jobs|job_batches|failed_jobs|sessions|cache|cache_locks|events|kept_\w+|presences|volumes|' .
    'audits?|password_\w+)\z/';

$most = max(2, (int) ($argv[2] ?? 50));
$database = SixtyClips::database();
$ask = require __DIR__ . '/client.php';
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = '/api/productions/' . $session['productions'][0]['ulid'];
[, $facts] = $ask($production);
$day = "$production/days/" . $facts['days'][0]['ulid'];
[, $log] = $ask("$day/log");
$take = $log['takes'][0]['ulid'];

if ($argv[1] === 'workers') {
    // Workers: each card is catalogued, its recording's pictures and sound are made. Copied they are before.
    $var = (string) getenv('CARTELLA_VAR');
    $source = "$var/scale.mov";
    (new Process([
        ...['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=size=1280x720:rate=25', '-f', 'lavfi', '-i', 'sine=r=48000'],
        ...['-t', '4', '-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-c:a', 'pcm_s16le', $source],
    ]))->mustRun();
    $bring = static function (string $prefix) use ($ask, $day, $var, $source): void {
        $rolls = array_map(static fn(int $n): string => sprintf('%s%03d', $prefix, $n), range(1, TASKS));
        foreach ($rolls as $roll) {
            mkdir("$var/volumes/.$roll");
            $file = "$var/volumes/.$roll/A001C001.mov";
            (new Process([
                'ffmpeg',
                '-v',
                'error',
                '-i',
                $source,
                '-map',
                '0',
                '-c',
                'copy',
                '-metadata',
                "comment=$roll",
                $file,
            ]))->mustRun();
            rename("$var/volumes/.$roll", "$var/volumes/$roll");
            $ask("$day/volumes/$roll/offload", ['roll' => $roll, 'device' => 'A'], 30);
        }
        do {
            usleep(200_000);
            $safe = array_column(array_filter($ask("$day/cards")[1]['cards'], static fn(array $one): bool => $one['is_safe']), 'roll');
        } while (array_diff($rolls, $safe) !== []);
    };
    $perHour = [];
    foreach (['K' => 1, 'L' => 2, 'M' => 4] as $prefix => $workers) {
        $bring($prefix);
        $begin = microtime(true);
        $running = [];
        for ($n = 0; $n < $workers; $n++) {
            $running[] = $one = new Process(
                [
                    PHP_BINARY,
                    'artisan',
                    'queue:work',
                    '--queue=import,sync,export,media,default',
                    '--stop-when-empty',
                    '--tries=1',
                    '--timeout=0',
                ],
                dirname(__DIR__, 2),
                timeout: 1800,
            );
            $one->start();
        }
        foreach ($running as $one) {
            $one->wait();
        }
        $perHour[$workers] = (3600 * TASKS) / (microtime(true) - $begin);
        printf(
            "scale    %d worker %s %5.0f tasks an hour (%.2fx)\n",
            $workers,
            $workers === 1 ? 'process ' : 'processes',
            $perHour[$workers],
            $perHour[$workers] / $perHour[1],
        );
    }
    $cores = max(1, (int) trim((string) shell_exec('nproc')));
    // Each task itself uses more than one core at times, so that a second worker does not double it.
    Bars::check(
        sprintf(
            'scale    two workers do %.2fx of one on %d cores (bar %s)',
            $perHour[2] / $perHour[1],
            $cores,
            $cores > 1 ? '1.15x' : '0.9x',
        ),
        $perHour[2] > ($cores > 1 ? 1.15 : 0.9) * $perHour[1],
    );
    Bars::check(sprintf('scale    four do %.2fx of two (bar 0.85x)', $perHour[4] / $perHour[2]), $perHour[4] > 0.85 * $perHour[2]);
    exit(Bars::status());
}

// Pages. Cards that lie in readers are looked at by whoever asks while nobody else does; here none lies there.
(new Process(['rm', '-rf', '--', ...glob(getenv('CARTELLA_VAR') . '/volumes/*') ?: []]))->mustRun();
do {
    usleep(200_000);
} while ($ask("$day/cards")[1]['volumes'] !== []);
$pages = [
    'productions' => '/api/session',
    'a production at a glance' => "$production/glance",
    'the day sheet' => "$day/sheet",
    'cards' => "$day/cards",
    'the log of a day' => "$day/log",
    'one take of it' => "$day/takes?ulids=$take",
    'the line-up' => "$day/lineup",
    'bins' => "$production/bins",
    'a search' => "$production/search?q=Mara",
    'cuts' => "$production/cuts",
    'hand-off' => "$production/handoffs",
    'what happened' => "$production/changes?after=0",
];
$counted = static function () use ($database): array {
    $status = $database
        ->query("SHOW GLOBAL STATUS WHERE Variable_name IN ('Questions') OR Variable_name LIKE 'Handler_read%'")
        ->fetchAll(PDO::FETCH_KEY_PAIR);

    return ['statements' => (int) $status['Questions'], 'rows' => array_sum(array_diff_key($status, ['Questions' => 0]))];
};
/** @return array<string, array{statements: int, rows: int, bytes: int, time: float}> by page, each the least of three */
$cost = static function () use ($pages, $ask, $counted): array {
    $all = [];
    foreach ($pages as $page => $path) {
        $ask($path);
        foreach (range(1, 3) as $n) {
            $before = $counted();
            [$time, , $bytes] = $ask($path);
            $after = $counted();
            $now = [
                'statements' => $after['statements'] - $before['statements'] - 1,
                'rows' => $after['rows'] - $before['rows'],
                'bytes' => $bytes,
                'time' => $time,
            ];
            foreach ($now as $what => $value) {
                $all[$page][$what] = min($all[$page][$what] ?? $value, $value);
            }
        }
    }

    return $all;
};

// More productions: rows of the first one under other numbers. Which column points at which table is asked of the database.
$tables = array_values(
    array_filter(
        $database
            ->query("SELECT table_name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE'")
            ->fetchAll(PDO::FETCH_COLUMN),
        static fn(string $table): bool => preg_match(SHARED, $table) !== 1,
    ),
);
$points = [];
foreach (
    $database->query(
        'SELECT table_name, column_name, referenced_table_name FROM information_schema.key_column_usage ' .
            'WHERE table_schema = DATABASE() AND referenced_table_name IS NOT NULL',
    )
    as [$table, $column, $to]
) {
    $points[$table][$column] = in_array($to, $tables, true);
}
$far = 10_000_000;
$first = (int) $database->query('SELECT MIN(id) FROM productions')->fetchColumn();
$copy = static function (int $number) use ($database, $tables, $points, $far, $first): void {
    $database->exec('SET foreign_key_checks = 0, unique_checks = 0');
    $database->beginTransaction();
    foreach ($tables as $table) {
        $columns = [];
        foreach ($database->query("SHOW COLUMNS FROM `$table`")->fetchAll(PDO::FETCH_ASSOC) as ['Field' => $column, 'Extra' => $extra]) {
            if (str_contains($extra, 'GENERATED')) {
                continue;
            }
            $columns["`$column`"] = match (true) {
                $column === 'id' && str_contains($extra, 'auto_increment'), $points[$table][$column] ?? false => "`$column` + " .
                    $far * $number,
                // Another one of the same length and order.
                $column === 'ulid' => sprintf(
                    "CONCAT('%s', SUBSTRING(`ulid`, 5))",
                    strtoupper(str_pad(base_convert((string) $number, 10, 32), 4, '0', STR_PAD_LEFT)),
                ),
                $table === 'productions' && $column === 'name' => "CONCAT(`name`, ' $number')",
                default => "`$column`",
            };
        }
        $where = isset($columns['`id`']) ? "WHERE `id` < $far" : '';
        if ($where === '' && in_array(true, $points[$table] ?? [], true)) {
            $where =
                'WHERE ' .
                implode(
                    ' AND ',
                    array_map(static fn(string $column): string => "`$column` < $far", array_keys(array_filter($points[$table]))),
                );
        }
        $database->exec(
            sprintf(
                'INSERT INTO `%s` (%s) SELECT %s FROM `%1$s` %s',
                $table,
                implode(', ', array_keys($columns)),
                implode(', ', $columns),
                $where,
            ),
        );
    }
    $database->exec(
        sprintf(
            'INSERT INTO production_user (production_id, user_id) ' .
                'SELECT production_id + %d, user_id FROM production_user WHERE production_id = %d',
            $far * $number,
            $first,
        ),
    );
    $database->commit();
};
$costs = [];
for ($count = 1; $count <= $most; $count++) {
    if ($count > 1) {
        $copy($count);
    }
    if (in_array($count, [1, 10, $most], true)) {
        $database->query('ANALYZE TABLE ' . implode(', ', array_map(static fn(string $table): string => "`$table`", $tables)))->fetchAll();
        $costs[$count] = $cost();
        printf("scale    %d %s of 60 000 clips\n", $count, $count === 1 ? 'production' : 'productions');
    }
}
foreach ($pages as $page => $path) {
    $told = [];
    foreach ($costs as $count => $cost) {
        $one = $cost[$page];
        $told[] = sprintf(
            '%d: %d statements, %d rows, %.1f kB, %.0f ms',
            $count,
            $one['statements'],
            $one['rows'],
            $one['bytes'] / 1000,
            $one['time'],
        );
    }
    $least = reset($costs)[$page];
    $worst = end($costs)[$page];
    // A list of one's productions is longer with more of them; all else costs what it did, but for small tables (devices, stores, people)
    // that are looked through whole.
    $may = $page === 'productions' ? $most : 1.1;
    Bars::check(
        sprintf('scale    %-24s %s', $page, implode('; ', $told)),
        $worst['statements'] <= $least['statements'] + NOISE && $worst['rows'] <= $may * $least['rows'] + SMALL * $most,
    );
}
// A page that reads less with more productions has been given a better plan by the database; that is no curve.
$first = reset($costs);
$last = end($costs);
$rows = array_sum(array_column($first, 'rows'));
$grows = array_sum(
    array_map(static fn(string $page): float => max(0, $last[$page]['rows'] - $first[$page]['rows']) / ($most - 1), array_keys($pages)),
);
printf(
    "scale    all pages together read %d rows with one production and %.0f more with each other one: %.2fx with a thousand\n",
    $rows,
    $grows,
    ($rows + 999 * $grows) / $rows,
);
exit(Bars::status());
