<?php

declare(strict_types=1);

// Says which lines are longer than .editorconfig allows: a formatter breaks code, but no sentence and no name.

const LIMITS = ['php' => 140, 'ts' => 120, 'vue' => 120, 'css' => 120];
const NOT_OURS = '#^(var|vendor|node_modules|public|bootstrap/cache|\.git)(/|$)#';

$root = dirname(__DIR__);
$ours = new RecursiveCallbackFilterIterator(
    new RecursiveDirectoryIterator($root, FilesystemIterator::SKIP_DOTS),
    static fn(SplFileInfo $file): bool => preg_match(NOT_OURS, substr($file->getPathname(), strlen($root) + 1)) !== 1,
);
$found = 0;
foreach (new RecursiveIteratorIterator($ours) as $file) {
    $limit = LIMITS[$file->getExtension()] ?? null;
    foreach ($limit === null ? [] : file($file->getPathname(), FILE_IGNORE_NEW_LINES) as $number => $line) {
        if (mb_strlen($line) > $limit) {
            $found++;
            $path = substr($file->getPathname(), strlen($root) + 1);
            fprintf(STDERR, "%s:%d is %d characters long\n", $path, $number + 1, mb_strlen($line));
        }
    }
}
exit($found === 0 ? 0 : 1);
