<?php

declare(strict_types=1);

// Reads files back for a running offload, which copies on meanwhile: a line of JSON [algorithm, path] comes in, the
// checksum goes out, or an empty line where the file cannot be read to its end. Ends with its standard input.
// Started with `php -n`, so that it is small.

while (($line = fgets(STDIN)) !== false) {
    [$algorithm, $path] = json_decode($line, true) + ['', ''];
    $checksum = '';
    $stream = @fopen((string) base64_decode($path, true), 'rb');
    if ($stream !== false) {
        stream_set_read_buffer($stream, 0);
        $hash = hash_init($algorithm);
        while (($piece = @fread($stream, 1 << 18)) !== false && $piece !== '') {
            hash_update($hash, $piece);
        }
        $checksum = feof($stream) ? hash_final($hash) : '';
        fclose($stream);
    }
    fwrite(STDOUT, $checksum."\n");
}
