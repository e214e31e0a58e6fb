<?php

declare(strict_types=1);

// Makes the guide sound of one file for a running line-up: `guide.php FILE CHANNELS,CHANNELS… TARGET` writes TARGET and
// TARGET.shape. Says on its error output why it could not, and ends with 1.

require __DIR__ . '/autoload.php';

try {
    Cartella\Core\Sound\GuideTrack::decodeTo($argv[1], array_map(intval(...), explode(',', $argv[2])), $argv[3]);
} catch (Cartella\Core\Media\Exception\UnableToReadMedia $trouble) {
    fwrite(STDERR, (string) ($trouble->context()['reason'] ?? $trouble->getMessage()));
    exit(1);
}
