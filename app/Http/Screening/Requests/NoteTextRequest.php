<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Other words of a note. */
final class NoteTextRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['text' => NoteRequest::TEXT];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['text.required' => 'Write the note, or remove it.'];
    }
}
