<?php

declare(strict_types=1);

// A camera that has not stopped: writes on to one file of a card until the card is taken out.

while (is_file($argv[1])) {
    file_put_contents($argv[1], random_bytes(8192), FILE_APPEND);
    clearstatcache();
    usleep(10_000);
}
