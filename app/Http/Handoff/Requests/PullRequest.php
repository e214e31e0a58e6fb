<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use App\Domain\Handoff\Back\PullOriginals;
use Illuminate\Foundation\Http\FormRequest;

/** How the originals of a cut are pulled: frames on either side, and whole or as far as they are needed. */
final class PullRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['handles' => ['required', 'integer', 'between:0,' . PullOriginals::MOST_HANDLES], 'trimmed' => ['required', 'boolean']];
    }
}
