<?php

declare(strict_types=1);

// Who may use whom. Dependencies point one way: ui -> app/Http -> app/Domain -> core. Inside app/Domain a folder uses only what
// stands in a row above its own; the framework's wiring (app/Providers, app/Console) may use all of it. What a general thing
// must know of a particular one is registered by the particular one.

const DOMAINS = [
    ['Undo', 'Tasks', 'People'],
    ['Productions', 'Points', 'Reports'],
    ['Footage'],
    ['Cards', 'Log', 'Lineup'],
    ['Words'],
    ['Sequences', 'Bins'],
    ['Screening', 'Assembly', 'Handoff'],
    ['Day', 'Health'],
];

/** What the lines of a folder may not say: folder, extensions, pattern, exception, and why. */
const LINES = [
    ['core/src', 'php', '/\b(Illuminate|Symfony|App|Laravel)\\\\/', '/^$/', 'the core knows no framework and no application'],
    [
        'core/src',
        'php',
        '/\b(shell_exec|passthru|popen|system|exec)\s*\(/',
        '/pcntl_exec/',
        'programs start from argument lists, through Process',
    ],
    ['app/Domain', 'php', '/\b(App\\\\Http|Illuminate\\\\Http(?!\\\\Client)|Illuminate\\\\Routing)\\\\/', '/^$/', 'a domain knows no HTTP'],
    ['app/Models', 'php', '/\bApp\\\\(Http|Domain)\\\\/', '/^$/', 'a model knows neither actions nor controllers'],
    ['app/Http', 'php', '/\bDB::/', '/^$/', 'a controller holds no transaction and asks no table'],
    [
        'app',
        'php',
        '/config\(.cartella\.(var|bench|proxies|scratch|inbox|logs|database|card_library).\)/',
        '/^$/',
        'only App\\Support\\Folders asks the settings for a folder',
    ],
    [
        'app',
        'php',
        '#["\'/](proxy|synced|joined)\.(mp4|wav)|thumb-\d\.jpg|points\.json#',
        '/^$/',
        'only MediaFile and ClipMedia spell the name of a proxy',
    ],
    ['app/Http', 'php', '/->validate\(/', '/^$/', 'what comes in is checked by a form request'],
    [
        'ui/stages',
        'ts|vue',
        '#from \'(@/stages/|\.\./\.\./stages/|\.\./(day|cards|log|lineup|bins|screening|handoff|settings)/)#',
        '/^$/',
        'a stage imports no other stage',
    ],
    ['ui', 'ts|vue', '/(?<!re)fetch\(/', '/^$/', 'only ui/api/client.ts talks to the server'],
];
const MAY = [
    'app/Domain/Footage/MediaFile.php' => 'only MediaFile and ClipMedia spell the name of a proxy',
    'ui/api/client.ts' => 'only ui/api/client.ts talks to the server',
    'ui/api/reach.ts' => 'only ui/api/client.ts talks to the server',
];

$root = dirname(__DIR__);
$faults = [];

/** @return iterable<string, list<string>> lines by path */
$files = static function (string $folder, string $extensions) use ($root): iterable {
    $all = new RecursiveIteratorIterator(new RecursiveDirectoryIterator("$root/$folder", FilesystemIterator::SKIP_DOTS));
    foreach ($all as $file) {
        if (preg_match('/\.(' . $extensions . ')$/', $file->getFilename()) === 1) {
            yield substr($file->getPathname(), strlen($root) + 1) => explode("\n", (string) file_get_contents($file->getPathname()));
        }
    }
};

foreach (LINES as [$folder, $extensions, $pattern, $except, $why]) {
    foreach ($files($folder, $extensions) as $path => $lines) {
        foreach ($lines as $number => $line) {
            if (preg_match($pattern, $line) === 1 && preg_match($except, $line) !== 1 && (MAY[$path] ?? '') !== $why) {
                $faults[] = sprintf('%s:%d %s', $path, $number + 1, $why);
            }
        }
    }
}

// The table above is enforced, and so is what it is for: no folder comes back to itself on any way.
$rows = [];
foreach (DOMAINS as $row => $names) {
    $rows += array_fill_keys($names, $row);
}
$uses = [];
foreach ($files('app/Domain', 'php') as $path => $lines) {
    $own = explode('/', $path)[2];
    if (!isset($rows[$own])) {
        $faults[] = "$path stands in a folder that the table does not know";

        continue;
    }
    foreach ($lines as $number => $line) {
        preg_match_all('/\bApp\\\\Domain\\\\(\w+)/', $line, $found);
        foreach (array_diff($found[1], [$own]) as $other) {
            $uses[$own][$other] = sprintf('%s:%d', $path, $number + 1);
            if (($rows[$other] ?? PHP_INT_MAX) >= $rows[$own]) {
                $faults[] = sprintf('%s:%d %s may not use %s', $path, $number + 1, $own, $other);
            }
        }
    }
}
$visit = static function (string $name, array $way) use (&$visit, $uses, &$faults): void {
    foreach ($uses[$name] ?? [] as $other => $where) {
        if (in_array($other, $way, true)) {
            $faults[] = sprintf('%s closes a circle: %s', $where, implode(' -> ', [...$way, $other]));
        } else {
            $visit($other, [...$way, $other]);
        }
    }
};
foreach (array_keys($uses) as $name) {
    $visit($name, [$name]);
}

foreach (array_unique($faults) as $fault) {
    fwrite(STDERR, $fault . "\n");
}
echo $faults === [] ? "Boundaries hold.\n" : count($faults) . " boundaries are crossed.\n";
exit($faults === [] ? 0 : 1);
