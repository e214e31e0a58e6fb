<?php

declare(strict_types=1);

// Gives every reader of foreign files so many broken inputs and looks whether one of them is answered by anything but an
// answer or a refusal in words, or costs more time or memory than its bounds. Use: fuzz.php FOLDER COUNT SEED

require __DIR__ . '/../../vendor/autoload.php';

use Tests\Fuzz\Mutations;
use Tests\Fuzz\Targets;
use Tests\Fuzz\Trial;

[$folder, $count, $seed] = [$argv[1], (int) ($argv[2] ?? 100_000), (int) ($argv[3] ?? 1)];
$parts = 2;
$children = [];
for ($part = 0; $part < $parts; $part++) {
    $child = pcntl_fork();
    if ($child !== 0) {
        $children[] = $child;

        continue;
    }
    @mkdir("$folder/$part", 0777, true);
    $targets = Targets::all("$folder/$part");
    $found = 0;
    $worst = ['', 0.0];
    $begin = hrtime(true);
    for ($number = $part; $number < $count; $number += $parts) {
        $name = array_keys($targets)[intdiv($number, $parts) % count($targets)];
        [$good, $read] = $targets[$name];
        $trouble = Trial::of($read, Mutations::of($good, $seed, $number));
        if ($trouble !== null) {
            $found++;
            printf("fuzz     %s, input %d of seed %d: %s\n", $name, $number, $seed, $trouble);
        }
    }
    printf(
        "fuzz     part %d: %d inputs in %.0f s, %d of them wrong (bar 0)\n",
        $part + 1,
        (int) ceil(($count - $part) / $parts),
        (hrtime(true) - $begin) / 1e9,
        $found,
    );
    exit($found === 0 ? 0 : 1);
}
$status = 0;
foreach ($children as $child) {
    pcntl_waitpid($child, $ended);
    $status |= pcntl_wexitstatus($ended);
}
exit($status);
