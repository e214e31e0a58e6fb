<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Internal;

use Cartella\Core\Lineup\Journal;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\SoundMatcher;
use Cartella\Core\Process;
use Cartella\Core\Sound\GuideTrack;

/**
 * Does a part of the clips of a line-up that are looked for along every overlap, beside the process that does the rest.
 * What it finds comes back as a {@see Journal}.
 *
 * @internal
 */
final class SecondProcess
{
    private const FLAGS = [
        ...['-d', 'opcache.enable_cli=1', '-d', 'opcache.jit=function', '-d', 'opcache.jit_buffer_size=32M'],
        ...['-d', 'memory_limit=512M'],
    ];

    private const SECONDS = 12 * 3600;

    /** What a share's journal is about; it belongs to one run. */
    private const SHARE = 'share';

    /** The look that its journal holds. */
    private const LOOK = 'fully';

    /**
     * @param  list<LineupClip>  $share  what it looks for
     * @param  callable(): void  $meanwhile
     * @return \Closure(LineupClip): (array<string, \Cartella\Core\Lineup\SoundMatch|null>|null) what it found of a clip; null where
     *     it found out nothing, because it could not be started or ended too soon
     */
    public static function beside(Heard $heard, array $share, callable $meanwhile): \Closure
    {
        $manifest = (string) tempnam(sys_get_temp_dir(), 'share');
        $journal = (string) tempnam(sys_get_temp_dir(), 'share');
        try {
            file_put_contents($manifest, json_encode(self::manifest($heard, $share), JSON_THROW_ON_ERROR));
            Process::beside(
                [PHP_BINARY, ...self::FLAGS, dirname(__DIR__, 3) . '/bin/look.php', $manifest, $journal],
                $meanwhile,
                self::SECONDS,
            );
            $found = Journal::open($journal, self::SHARE);
        } finally {
            @unlink($manifest);
            @unlink($journal);
        }

        return static fn(LineupClip $clip): ?array => $found->of(self::LOOK . " $clip->id")['compared'] ?? null;
    }

    /** Whether all sound lies in files, where another process finds it. */
    public static function canHear(Heard $heard): bool
    {
        return array_filter($heard->tracks, static fn(GuideTrack $track): bool => $track->file() === null) === [];
    }

    /**
     * The second process's own work.
     *
     * @param  array{clips: list<array<string, mixed>>, left: list<string>}  $manifest
     */
    public static function work(array $manifest, string $path): void
    {
        $heard = new Heard();
        foreach ($manifest['clips'] as $clip) {
            $heard->add(
                new LineupClip(
                    $clip['id'],
                    $clip['device'],
                    $clip['is_sound'],
                    $clip['duration_ticks'],
                    $clip['start_ticks'],
                    $clip['recorded_ticks'],
                ),
                GuideTrack::ofFile($clip['guide']),
            );
        }
        $matcher = new SoundMatcher();
        $comparisons = new Comparisons($matcher, $heard);
        $overlaps = new Overlaps($matcher, $heard, $comparisons, true);
        $journal = Journal::open($path, self::SHARE);
        $parent = posix_getppid();
        foreach ($manifest['left'] as $id) {
            // Nobody waits for what it would still find; the run begins another one.
            if (posix_getppid() !== $parent) {
                return;
            }
            $comparisons->begin();
            $overlaps->lookFor($heard->clips[$id]);
            $journal->keep(self::LOOK . " $id", $comparisons->pairsOf($heard->clips[$id]), $comparisons->changed());
        }
    }

    /**
     * @param  list<LineupClip>  $share
     * @return array{clips: list<array<string, mixed>>, left: list<string>}
     */
    private static function manifest(Heard $heard, array $share): array
    {
        return [
            'clips' => array_map(
                static fn(LineupClip $clip): array => [
                    'id' => $clip->id,
                    'device' => $clip->device,
                    'is_sound' => $clip->isSound,
                    'duration_ticks' => $clip->durationTicks,
                    'start_ticks' => $clip->startTicks,
                    'recorded_ticks' => $clip->recordedTicks,
                    'guide' => $heard->tracks[$clip->id]->file(),
                ],
                array_values($heard->clips),
            ),
            'left' => array_column($share, 'id'),
        ];
    }
}
