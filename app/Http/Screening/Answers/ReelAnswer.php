<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Domain\Screening\ReelAngles;
use App\Domain\Screening\ReelRecipe;
use App\Domain\Screening\ReelShow;
use App\Domain\Sequences\Playlist;
use App\Models\StoredSequence;
use App\Models\Take;

/** A reel as the dark room shows it. */
final readonly class ReelAnswer
{
    /**
     * @param  string  $words  by what it is made
     * @param  bool  $together  all angles of a take are shown at once
     * @param  list<ReelItemAnswer>  $items
     * @param  list<LeftOutAnswer>  $left_out
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public string $words,
        public bool $together,
        public ?string $day,
        public int $step,
        public array $items,
        public array $left_out,
    ) {}

    /**
     * @param  list<Take>  $leftOut
     * @param  int|null  $who  who asks; null for somebody from outside, who is told nothing that was said
     */
    public static function of(StoredSequence $reel, Playlist $playlist, ReelShow $show, array $leftOut, ?int $who): self
    {
        $items = [];
        foreach ($show->of($playlist) as ['piece' => $piece, 'angles' => $angles]) {
            if ($piece->take !== null) {
                $items[] = ReelItemAnswer::of(count($items), $piece, $piece->take, $angles, $playlist->sequence->rate, $who);
            }
        }
        $recipe = ReelRecipe::of($reel);

        return new self(
            $reel->ulid,
            $reel->name,
            $recipe?->words() ?? '',
            $recipe?->angles === ReelAngles::Together,
            $reel->day?->ulid,
            $reel->step,
            $items,
            array_map(LeftOutAnswer::of(...), $leftOut),
        );
    }
}
