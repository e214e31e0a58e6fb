<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use Cartella\Core\Time\Ticks;
use Illuminate\Foundation\Http\FormRequest;

/** A name for a stretch of a clip, some of its channels, or both. */
final class SubclipRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:160'],
            'in_ticks' => ['present', 'nullable', 'integer'],
            'out_ticks' => ['present', 'nullable', 'integer'],
            'handle_ticks' => ['sometimes', 'integer', 'between:0,' . 600 * Ticks::PER_SECOND],
            'channels' => ['sometimes', 'nullable', 'array', 'list', 'between:1,64'],
            'channels.*' => ['integer'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['name.required' => 'Give the subclip a name.', 'handle_ticks.*' => 'Handles are ten minutes at most.'];
    }
}
