<?php

declare(strict_types=1);

namespace App\Http\Log\Answers;

/** What a script would change. */
final readonly class ScriptReportAnswer
{
    /**
     * @param  list<string>  $new
     * @param  list<string>  $gone
     * @param  list<string>  $changed
     */
    public function __construct(public int $scenes, public array $new, public array $gone, public array $changed, public string $pages) {}
}
