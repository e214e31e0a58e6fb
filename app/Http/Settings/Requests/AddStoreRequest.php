<?php

declare(strict_types=1);

namespace App\Http\Settings\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A new place for copies. */
final class AddStoreRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['name' => ['required', 'string', 'max:60', 'regex:/\S/'], 'path' => ['required', 'string', 'max:400']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['name.*' => 'Give the volume a name.', 'path.*' => 'Give its path.'];
    }
}
