<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** A scene of the day: what the script says of it, and what was shot. */
final readonly class SheetSceneAnswer
{
    /**
     * @param  list<string>  $characters
     */
    public function __construct(
        public string $heading,
        public array $characters,
        public ?string $pages,
        public bool $in_script,
        public int $setups,
        public int $takes,
        public int $circled,
        public int $running_ticks,
        public int $days,
    ) {}
}
