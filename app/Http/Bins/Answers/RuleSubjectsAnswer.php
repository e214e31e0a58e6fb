<?php

declare(strict_types=1);

namespace App\Http\Bins\Answers;

/** Everything that a rule can ask about. */
final readonly class RuleSubjectsAnswer
{
    /** @param  list<RuleSubjectAnswer>  $subjects */
    public function __construct(public array $subjects) {}
}
