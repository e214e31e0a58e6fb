<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Health\Health;
use Illuminate\Console\Command;

/** Prints what is up, how full the disks are and how long the queues, for `./cartella status`. */
final class ShowHealth extends Command
{
    protected $signature = 'cartella:health';

    protected $description = 'Say what is up, how full the disks are and how long the queues';

    public function handle(Health $health): int
    {
        $found = $health->look();
        foreach ($found['parts'] as $name => $state) {
            $this->line(sprintf('%-22s %s', $name, $state));
        }
        foreach ($found['disks'] as $disk) {
            $this->line(
                $disk['free_bytes'] === null || (int) $disk['total_bytes'] === 0
                    ? sprintf('%-22s not there', $disk['what'])
                    : sprintf(
                        '%-22s %.1f of %.1f GB free (%d %% full)',
                        $disk['what'],
                        $disk['free_bytes'] / 1e9,
                        $disk['total_bytes'] / 1e9,
                        100 - (int) ((100 * $disk['free_bytes']) / $disk['total_bytes']),
                    ),
            );
        }
        foreach ($found['queues'] as $queue) {
            $this->line(
                sprintf(
                    'queue %-16s %d waiting%s',
                    $queue['name'],
                    $queue['waiting'],
                    $queue['waiting'] > 0 ? sprintf(', the oldest for %d s', $queue['oldest_seconds']) : '',
                ),
            );
        }
        $this->line(
            sprintf(
                '%-22s %d running, %d waiting, %d failed since yesterday',
                'tasks',
                $found['tasks']['running'],
                $found['tasks']['waiting'],
                $found['tasks']['failed_today'],
            ),
        );
        foreach ($found['problems'] as $problem) {
            $this->warn($problem);
        }

        return $found['ok'] ? self::SUCCESS : self::FAILURE;
    }
}
