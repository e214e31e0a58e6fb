<?php

declare(strict_types=1);

// Line-up on material from a seed: how right it is, how fast beside ffmpeg's own decode of the same sound, what it costs
// in memory, and how its time grows; then timecode on a sound track, and claps; then what sets are like, on material
// that was tuned on and on other. Prints each number beside its bar.
//
// lineup.php DEMO FOLDER [SEED]: the demo's cards and their truth; a folder for the material, which is kept for the next run.

require __DIR__ . '/../../vendor/autoload.php';
require __DIR__ . '/Bars.php';
require __DIR__ . '/LineupMaterial.php';
require __DIR__ . '/LineupTrials.php';
require __DIR__ . '/LineupConditions.php';

use Cartella\Bench\Bars;
use Cartella\Bench\LineupConditions;
use Cartella\Bench\LineupTrials;

[, $demo, $folder] = $argv;
$trials = new LineupTrials($folder, (int) ($argv[3] ?? 7));
$trials->accuracy();
$trials->longDay();
$trials->scriptedDay();
$trials->timecode();
$trials->claps($demo);
LineupConditions::compare("$folder/true", (int) ($argv[3] ?? 7));
exit(Bars::status());
