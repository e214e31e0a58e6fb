<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

/** What keeps locks by name among all processes of a desk, on however many machines; a killed process holds none. */
interface Locks
{
    /** @param  int  $seconds  to wait for whoever holds it */
    public function take(string $name, int $seconds): bool;

    public function letGo(string $name): void;

    public function isFree(string $name): bool;

    public function isOurs(string $name): bool;
}
