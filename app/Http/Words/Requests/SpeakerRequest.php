<?php

declare(strict_types=1);

namespace App\Http\Words\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Who speaks in a passage, and who was said to. */
final class SpeakerRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'was' => ['present', 'nullable', 'string', 'max:60'],
            'speaker' => ['present', 'nullable', 'string', 'max:60'],
            'everywhere' => ['sometimes', 'boolean'],
        ];
    }
}
