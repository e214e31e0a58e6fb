<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Domain\Screening\ReelShow;
use App\Domain\Sequences\Playlist;
use App\Models\StoredSequence;

/** A reel as the dark room shows it. */
final readonly class ReelAnswer
{
    /** @param  list<ReelItemAnswer>  $items */
    public function __construct(
        public string $ulid,
        public string $name,
        public bool $circled_only,
        public ?string $day,
        public array $items,
    ) {}

    public static function of(StoredSequence $reel, Playlist $playlist, ReelShow $show): self
    {
        $items = [];
        foreach ($show->of($playlist) as ['piece' => $piece, 'angles' => $angles]) {
            if ($piece->take !== null) {
                $items[] = ReelItemAnswer::of(count($items), $piece, $piece->take, $angles, $playlist->sequence->rate);
            }
        }

        return new self($reel->ulid, $reel->name, (bool) ($reel->recipe['circled_only'] ?? false), $reel->day?->ulid, $items);
    }
}
