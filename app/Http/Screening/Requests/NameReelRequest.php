<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Another name of a reel. */
final class NameReelRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['name' => ['required', 'string', 'max:120', 'regex:/\S/']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['name.*' => 'Give the reel a name of at most 120 letters.'];
    }
}
