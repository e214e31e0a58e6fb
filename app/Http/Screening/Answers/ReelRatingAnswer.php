<?php

declare(strict_types=1);

namespace App\Http\Screening\Answers;

use App\Models\TakeRating;

/** The stars of one person. */
final readonly class ReelRatingAnswer
{
    public function __construct(public string $by, public bool $mine, public int $stars) {}

    public static function of(TakeRating $rating, int $who): self
    {
        return new self($rating->user->name, $rating->user_id === $who, $rating->stars);
    }
}
