<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

/** A folder of a package that is planned: what, how much, and what of it is new since what was accepted. */
final readonly class PackingRowAnswer
{
    /** @param  list<string>  $names  the first of them */
    public function __construct(
        public string $folder,
        public string $what,
        public int $new,
        public int $changed,
        public int $moved,
        public int $count,
        public int $bytes,
        public array $names,
    ) {}
}
