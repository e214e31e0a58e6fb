<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

/** A shoot day as the page of productions shows it. */
final readonly class GlanceDayAnswer
{
    /** @param  int  $open  its open points */
    public function __construct(
        public string $ulid,
        public int $number,
        public string $date,
        public int $takes,
        public int $cards,
        public int $open,
    ) {}
}
