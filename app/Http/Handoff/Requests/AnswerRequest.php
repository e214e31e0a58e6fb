<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** What the editing team asks about a package; nothing accepts it. */
final class AnswerRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['query' => ['present', 'nullable', 'string', 'max:1000']];
    }
}
