<?php

declare(strict_types=1);

// Read by PHP-FPM when it starts (opcache.preload): classes are compiled and linked once for all its processes instead of in every
// answer. The list is of scripts/classes.php; without it nothing is.

foreach (explode("\n", trim((string) @file_get_contents(getenv('CARTELLA_VAR') . '/cache/classes.txt'))) as $file) {
    if ($file !== '' && is_file($file)) {
        opcache_compile_file($file);
    }
}
