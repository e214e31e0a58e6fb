<?php

declare(strict_types=1);

namespace App\Http\Lineup\Answers;

/** A run of the line-up. */
final readonly class LineupRunAnswer
{
    /**
     * @param  list<string>  $ways
     */
    public function __construct(
        public string $ulid,
        public int $number,
        public string $scope,
        public array $ways,
        public int $placed,
        public int $sure,
        public int $strays,
        public ?string $by,
        public string $at,
    ) {}
}
