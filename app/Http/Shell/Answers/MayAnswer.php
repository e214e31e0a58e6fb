<?php

declare(strict_types=1);

namespace App\Http\Shell\Answers;

use App\Models\Production;
use Illuminate\Support\Facades\Gate;

/** What whoever asks may do in a production. */
final readonly class MayAnswer
{
    public function __construct(public bool $work, public bool $organise, public bool $review, public bool $accept, public bool $manage) {}

    public static function in(Production $production): self
    {
        return new self(
            work: Gate::allows('work', $production),
            organise: Gate::allows('organise', $production),
            review: Gate::allows('review', $production),
            accept: Gate::allows('accept', $production),
            manage: Gate::allows('manage', $production),
        );
    }
}
