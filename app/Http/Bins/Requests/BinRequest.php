<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The name of a bin, and for a new one where it lies. */
final class BinRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:120', 'regex:/\S/', 'not_regex:/:/'],
            'parent' => ['sometimes', 'nullable', 'string', 'size:26'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['name.required' => 'Give the bin a name.', 'name.*' => 'A bin\'s name has at most 120 letters and no colon.'];
    }
}
