<?php

declare(strict_types=1);

// Reads a dump on standard input and prints a checksum of each table's rows and of its definition, a line each, so that two
// dumps can be compared whatever stands in their comments.

$sums = [];
$table = '';
while (($line = fgets(STDIN)) !== false) {
    if (preg_match('/\ACREATE TABLE `(\w+)`|\AINSERT INTO `(\w+)`/', $line, $part) === 1) {
        $table = $part[1] !== '' ? $part[1] : $part[2];
    }
    if ($table !== '' && !str_starts_with($line, '--') && !str_starts_with($line, '/*')) {
        $sums[$table] ??= hash_init('xxh128');
        hash_update($sums[$table], (string) preg_replace('/ AUTO_INCREMENT=\d+/', '', $line));
    }
    if (str_ends_with(rtrim($line), ';')) {
        $table = '';
    }
}
ksort($sums);
foreach ($sums as $name => $hash) {
    printf("%s %s\n", $name, hash_final($hash));
}
