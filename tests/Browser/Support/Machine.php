<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

/**
 * How much of the machine's processors others had: the host that lends them (steal, proc(5)), or the limit of a container
 * (throttled, cgroup v2). What plays in real time says nothing of itself while somebody else has the processors.
 */
final readonly class Machine
{
    /** Share of all time from which on a measure in real time says nothing. */
    public const TAKEN = 0.04;

    private function __construct(private float $taken, private float $all, private float $throttled, private float $at) {}

    public static function now(): self
    {
        preg_match('/^cpu +(.+)$/m', (string) @file_get_contents('/proc/stat'), $line);
        $ticks = array_map(floatval(...), preg_split('/ +/', $line[1] ?? '') ?: []);
        preg_match('/^throttled_usec (\d+)$/m', (string) @file_get_contents('/sys/fs/cgroup/cpu.stat'), $throttled);

        return new self($ticks[7] ?? 0, array_sum(array_slice($ticks, 0, 8)), (float) ($throttled[1] ?? 0) / 1e6, microtime(true));
    }

    /** The share that others had since then, 0 to 1. */
    public function takenSince(): float
    {
        $now = self::now();
        $stolen = $now->all > $this->all ? ($now->taken - $this->taken) / ($now->all - $this->all) : 0.0;

        return max($stolen, ($now->throttled - $this->throttled) / max(0.001, $now->at - $this->at));
    }
}
