<?php

declare(strict_types=1);

// Line-up of the demo's day 2 by sound, against ffmpeg's own decode of the same sound.

require __DIR__.'/../../vendor/autoload.php';

use Symfony\Component\Process\Process;

$demo = $argv[1];
$clips = [];
$decode = 0.0;
foreach (json_decode((string) file_get_contents("$demo/truth.json"), true)['clips'] as $clip) {
    if ($clip['day'] !== 2) {
        continue;
    }
    $folder = "$demo/cards/{$clip['card']}/ROLL_{$clip['card']}";
    $path = $clip['device'] === 'S' ? "$folder/{$clip['name']}.wav" : "$folder/{$clip['name']}/{$clip['name']}.mov";
    $clips[] = ['id' => $clip['name'], 'device' => $clip['device'], 'path' => $path];
    $begin = hrtime(true);
    (new Process(['ffmpeg', '-v', 'error', '-nostdin', '-i', $path, '-map', '0:a:0', '-f', 'null', '-'], timeout: 300))->mustRun();
    $decode += (hrtime(true) - $begin) / 1e9;
}
$manifest = tempnam(sys_get_temp_dir(), 'cartella');
file_put_contents($manifest, json_encode(['clips' => $clips, 'ways' => ['sound']]));
$begin = hrtime(true);
$answer = (new Process([__DIR__.'/../../core/bin/cartella-core', 'lineup', $manifest], timeout: 900))->mustRun()->getOutput();
$time = (hrtime(true) - $begin) / 1e9;
unlink($manifest);
$placements = json_decode($answer, true)['placements'];
printf(
    "lineup   day 2, %d clips, %d sure: %.2f s, ffmpeg decodes the same sound in %.2f s: %.1fx\n",
    count($placements), count(array_filter($placements, static fn (array $place): bool => $place['sure'])), $time, $decode, $time / $decode,
);
