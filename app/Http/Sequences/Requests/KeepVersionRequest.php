<?php

declare(strict_types=1);

namespace App\Http\Sequences\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A name for a cut as it is now. */
final class KeepVersionRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['name' => ['required', 'string', 'max:120']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['name.required' => 'Give the version a name first.'];
    }
}
