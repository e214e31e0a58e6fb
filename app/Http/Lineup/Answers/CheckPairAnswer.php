<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** A clip beside the one it was placed against. */
final readonly class CheckPairAnswer
{
    /**
     * @param  list<array{ticks: int, what: 'clap'|'onset'}>  $moments
     */
    public function __construct(
        public CheckSideAnswer $own,
        public ?CheckSideAnswer $against,
        public ?CheckSideAnswer $beside,
        public array $moments,
    ) {}
}
