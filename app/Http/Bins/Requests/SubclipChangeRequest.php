<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use Cartella\Core\Time\Ticks;
use Illuminate\Foundation\Http\FormRequest;

/** Another name or another stretch for a subclip. */
final class SubclipChangeRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:160', 'regex:/\S/'],
            'in_ticks' => ['present', 'nullable', 'integer', 'required_with:out_ticks'],
            'out_ticks' => ['present', 'nullable', 'integer', 'required_with:in_ticks'],
            'handle_ticks' => ['sometimes', 'integer', 'between:0,' . 600 * Ticks::PER_SECOND],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['name.*' => 'Give the subclip a name.', 'handle_ticks.*' => 'Handles are ten minutes at most.'];
    }
}
