<?php

declare(strict_types=1);

namespace App\Http\Account\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The old password and a new one. */
final class PasswordRequest extends FormRequest
{
    private const LEAST_LETTERS = 10;

    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'current' => ['required', 'string', 'max:190'],
            'password' => ['required', 'string', 'min:' . self::LEAST_LETTERS, 'max:190', 'different:current'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'password.min' => 'A password has at least ' . self::LEAST_LETTERS . ' letters.',
            'password.different' => 'Choose another password than before.',
            'required' => 'Type the old password and the new one.',
        ];
    }
}
