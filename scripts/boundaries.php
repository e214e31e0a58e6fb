<?php

declare(strict_types=1);

// Checks that dependencies point one way: the core knows no framework, domains know no HTTP, stages of the interface
// know each other only through their index, and only the typed client talks to the server.

$faults = [];
$scan = static function (string $folder, string $extensions, callable $check) use (&$faults): void {
    foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator($folder, FilesystemIterator::SKIP_DOTS)) as $file) {
        if (preg_match('/\.(' . $extensions . ')$/', $file->getFilename()) !== 1) {
            continue;
        }
        $path = substr($file->getPathname(), strlen(dirname(__DIR__)) + 1);
        foreach (explode("\n", (string) file_get_contents($file->getPathname())) as $number => $line) {
            $why = $check($line, $path);
            if ($why !== null) {
                $faults[] = sprintf('%s:%d %s', $path, $number + 1, $why);
            }
        }
    }
};
$root = dirname(__DIR__);
$scan(
    "$root/core/src",
    'php',
    static fn(string $line): ?string => preg_match('/\b(Illuminate|Symfony|App|Laravel)\\\\/', $line) === 1
        ? 'the core knows no framework and no application'
        : null,
);
$scan(
    "$root/core/src",
    'php',
    static fn(string $line): ?string => preg_match('/\b(shell_exec|passthru|popen|system|exec)\s*\(/', $line) === 1 &&
    !str_contains($line, 'pcntl_exec')
        ? 'programs start from argument lists, through Process'
        : null,
);
$scan(
    "$root/app/Domain",
    'php',
    static fn(string $line): ?string => preg_match('/\buse (App\\\\Http|Illuminate\\\\Http|Illuminate\\\\Routing)\\\\/', $line) === 1
        ? 'a domain knows no HTTP'
        : null,
);
$scan(
    "$root/app/Models",
    'php',
    static fn(string $line): ?string => preg_match('/\buse App\\\\(Http|Domain)\\\\/', $line) === 1
        ? 'a model knows neither actions nor controllers'
        : null,
);
$scan(
    "$root/ui",
    'ts|vue',
    static fn(string $line, string $path): ?string => preg_match(
        '#from \'(@/stages/|\.\./\.\./stages/|\.\./(day|cards|log|lineup|bins|screening|handoff)/)#',
        $line,
    ) === 1
        ? 'a stage imports no other stage'
        : null,
);
$scan(
    "$root/ui",
    'ts|vue',
    static fn(string $line, string $path): ?string => preg_match('/\bfetch\(/', $line) === 1 &&
    $path !== 'ui/api/client.ts' &&
    !str_contains($line, 'refetch(')
        ? 'only ui/api/client.ts talks to the server'
        : null,
);
foreach ($faults as $fault) {
    fwrite(STDERR, $fault . "\n");
}
echo count($faults) === 0 ? "Boundaries hold.\n" : count($faults) . " boundaries are crossed.\n";
exit($faults === [] ? 0 : 1);
