<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

/** By what template cards land. */
final readonly class TemplateAnswer
{
    public function __construct(public string $template) {}
}
