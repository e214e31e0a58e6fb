<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A new bin: its name, where it lies, and by what rule it fills itself, if by any. */
final class BinRequest extends FormRequest
{
    public const NAME = ['string', 'max:120', 'regex:/\S/', 'not_regex:/:/'];

    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'name' => ['required', ...self::NAME],
            'parent' => ['sometimes', 'nullable', 'string', 'size:26'],
            'rule' => ['sometimes', 'nullable', 'array'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['name.required' => 'Give the bin a name.', 'name.*' => 'A bin\'s name has at most 120 letters and no colon.'];
    }
}
