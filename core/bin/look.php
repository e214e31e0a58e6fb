<?php

declare(strict_types=1);

// Looks for some clips along the recordings beside a running line-up, which does the rest of them: `look.php MANIFEST JOURNAL`.
// The manifest is JSON of SecondProcess; what is found is written into the journal. Ends with 1 where it could not.

require __DIR__ . '/autoload.php';

try {
    Cartella\Core\Lineup\Internal\SecondProcess::work(
        json_decode((string) file_get_contents($argv[1]), true, 8, JSON_THROW_ON_ERROR),
        $argv[2],
    );
} catch (Throwable $trouble) {
    fwrite(STDERR, $trouble->getMessage());
    exit(1);
}
