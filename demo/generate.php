<?php

declare(strict_types=1);

// Makes the cards of the demo production in the folder named first.

require __DIR__ . '/../vendor/autoload.php';

$folder = $argv[1] ?? exit("Name a folder.\n");
(new Cartella\Demo\Generator($folder, static function (string $line): void {
    echo "  $line\n";
}))->run();
