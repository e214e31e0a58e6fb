<?php

declare(strict_types=1);

namespace Cartella\Demo;

use Symfony\Component\Process\Process;

/** Runs outside programs from argument lists, two at a time, and stops the whole work with their words when one fails. */
final class Programs
{
    /** @var list<Process> */
    private array $running = [];

    public function __construct(private readonly int $atOnce = 2) {}

    /** @param  list<string>  $command */
    public function start(array $command): void
    {
        while (count($this->running) >= $this->atOnce) {
            $this->reap();
            usleep(2000);
        }
        $process = new Process($command, timeout: 300);
        $process->start();
        $this->running[] = $process;
    }

    public function wait(): void
    {
        while ($this->running !== []) {
            $this->reap();
            usleep(2000);
        }
    }

    /** @param  list<string>  $command */
    public static function run(array $command): void
    {
        (new Process($command, timeout: 300))->mustRun();
    }

    /** @return list<string> what every ffmpeg call of the demo begins with */
    public static function ffmpeg(): array
    {
        return ['ffmpeg', '-v', 'error', '-nostdin', '-y', '-protocol_whitelist', 'file,pipe'];
    }

    private function reap(): void
    {
        foreach ($this->running as $index => $process) {
            if (!$process->isRunning()) {
                unset($this->running[$index]);
                if (!$process->isSuccessful()) {
                    throw new \RuntimeException(
                        'A program of the demo failed: ' . $process->getCommandLine() . "\n" . $process->getErrorOutput(),
                    );
                }
            }
        }
        $this->running = array_values($this->running);
    }
}
