<?php

declare(strict_types=1);

namespace App\Models;

/** What somebody does in their productions; the policy says what each may. */
enum Role: string
{
    case Assistant = 'assistant';
    case Editor = 'editor';
    case Reviewer = 'reviewer';
    case Admin = 'admin';
}
