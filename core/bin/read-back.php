<?php

declare(strict_types=1);

// Reads files back for a running offload, which copies on meanwhile: a line of JSON [algorithm, path] comes in; the
// checksum goes out with where the bytes came from (`medium` or `cache`), or an empty line where the file cannot be read
// to its end. Ends with its standard input. Started with `php -n`, so that it is small.

require __DIR__ . '/../src/Custody/Internal/Libc.php';
require __DIR__ . '/../src/Custody/Internal/MediumHash.php';

while (($line = fgets(STDIN)) !== false) {
    [$algorithm, $path] = json_decode($line, true) + ['', ''];
    [$checksum, $from] = Cartella\Core\Custody\Internal\MediumHash::of((string) base64_decode($path, true), $algorithm);
    fwrite(STDOUT, ($checksum === null ? '' : "$checksum $from") . "\n");
}
