<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\ListOf;

/** What of other programs is connected with a production. */
final readonly class ConnectionsAnswer
{
    /**
     * @param  list<WebHookAnswer>  $hooks
     * @param  list<ApiTokenAnswer>  $tokens
     * @param  list<string>  $languages  that can be recognised on this machine
     * @param  string|null  $words_service  address of another service that finds words
     */
    public function __construct(
        #[ListOf(WebHookAnswer::class)] public array $hooks,
        #[ListOf(ApiTokenAnswer::class)] public array $tokens,
        public ?string $words_service,
        public array $languages,
    ) {}
}
