<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** What somebody says while watching, and at which frame of which picture. */
final class NoteRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'text' => ['required', 'string', 'max:1000'],
            'at_ticks' => ['required', 'integer', 'min:0'],
            'clip' => ['sometimes', 'nullable', 'string', 'size:26'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['text.required' => 'Write the note first.'];
    }
}
