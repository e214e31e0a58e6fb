<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use App\Domain\Footage\ColourClips;
use Illuminate\Foundation\Http\FormRequest;

/** Another name, colour or rule for a bin; `was` is the rule as the person saw it. */
final class ChangeBinRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'name' => ['sometimes', 'required', ...BinRequest::NAME],
            'colour' => ['sometimes', 'nullable', 'string', 'in:' . implode(',', ColourClips::COLOURS)],
            'rule' => ['sometimes', 'array'],
            'was' => ['sometimes', 'array'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'name.required' => 'Give the bin a name.',
            'name.*' => 'A bin\'s name has at most 120 letters and no colon.',
            'colour.*' => 'Choose one of the colours.',
        ];
    }
}
