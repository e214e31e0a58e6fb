<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A look from a file, or by its numbers with a name. */
final class NewLookRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return $this->hasFile('file')
            ? ['file' => ['file', 'max:1024']]
            : ['name' => ['required', 'string', 'max:120', 'regex:/\S/']] + LookValues::RULES;
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['file.max' => 'A look is at most 1 MB.', 'name.*' => 'Give the look a name.'];
    }
}
