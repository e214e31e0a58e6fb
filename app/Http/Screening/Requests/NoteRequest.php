<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** What somebody says while watching, at which frame of which picture or over which stretch, and in which reel. */
final class NoteRequest extends FormRequest
{
    public const TEXT = ['required', 'string', 'max:1000'];

    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'text' => self::TEXT,
            'at_ticks' => ['required', 'integer', 'min:0', 'max:9007199254740991'],
            'out_ticks' => ['sometimes', 'nullable', 'integer', 'gt:at_ticks', 'max:9007199254740991'],
            'clip' => ['sometimes', 'nullable', 'string', 'size:26'],
            'reel' => ['sometimes', 'nullable', 'string', 'size:26'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['text.required' => 'Write the note first.', 'out_ticks.gt' => 'The stretch ends before it begins.'];
    }
}
