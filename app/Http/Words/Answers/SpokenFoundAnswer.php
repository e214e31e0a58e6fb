<?php

declare(strict_types=1);

namespace App\Http\Words\Answers;

use App\Http\ListOf;

/** What was found in all that is said. */
final readonly class SpokenFoundAnswer
{
    /**
     * @param  string|null  $meant  what was looked for instead, where nobody says what was typed
     * @param  list<string>  $speakers  of the whole production
     * @param  bool  $is_any  whether anything was listened to yet, or words were brought in
     * @param  bool  $more  whether there is more than this
     * @param  list<SpokenHitAnswer>  $hits  by day and slate
     */
    public function __construct(
        public ?string $meant,
        public array $speakers,
        public bool $is_any,
        public bool $more,
        #[ListOf(SpokenHitAnswer::class)] public array $hits,
    ) {}
}
