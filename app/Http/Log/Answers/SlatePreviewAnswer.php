<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

use App\Http\ListOf;

/** What would be read as slates, and by which patterns. */
final readonly class SlatePreviewAnswer
{
    /**
     * @param  list<ReadSlateAnswer>  $clips
     * @param  list<string>|null  $patterns
     */
    public function __construct(#[ListOf(ReadSlateAnswer::class)] public array $clips, public ?array $patterns = null) {}
}
