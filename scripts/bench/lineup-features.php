<?php

declare(strict_types=1);

// Lines up clips whose features are kept, and prints the places, the seconds and the memory it took: lineup-features.php CLIPS.json

require __DIR__ . '/../../vendor/autoload.php';

use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;

$clips = array_map(
    static fn(array $clip): LineupClip => new LineupClip(
        $clip['id'],
        $clip['device'],
        $clip['device'] === 'S',
        intdiv(filesize($clip['guide']) * Ticks::PER_SECOND, 2 * GuideTrack::SAMPLE_RATE),
        sound: static fn(): GuideTrack => GuideTrack::ofFile($clip['guide']),
    ),
    json_decode((string) file_get_contents($argv[1]), true),
);
$begin = hrtime(true);
$result = Lineup::of($clips, [Way::Sound]);
echo json_encode($result->toArray() + ['seconds' => (hrtime(true) - $begin) / 1e9, 'megabytes' => memory_get_peak_usage(true) >> 20]);
