<?php

declare(strict_types=1);

namespace App\Http\Shell\Requests;

use App\Models\Production;
use Cartella\Core\Slate\SlateStyle;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** A new production: its name, rate and way of slating. */
final class MakeProductionRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:120', 'regex:/\S/'],
            'rate' => ['required', 'string', 'max:10'],
            'date' => ['required', 'date_format:Y-m-d'],
            'style' => ['sometimes', Rule::enum(SlateStyle::class)],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['name.*' => 'Give the production a name.', 'date.*' => 'Write the date as 2026-10-07.'];
    }
}
