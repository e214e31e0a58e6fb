<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A question about a package, or about one file in it. */
final class AskRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['question' => ['required', 'string', 'max:1000'], 'path' => ['sometimes', 'nullable', 'string', 'max:500']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['question.required' => 'Write what is wrong or missing.'];
    }
}
