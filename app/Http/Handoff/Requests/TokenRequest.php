<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** What a token is for. */
final class TokenRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['name' => ['required', 'string', 'max:80', 'regex:/\S/']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['name.*' => 'Say which program the token is for.'];
    }
}
