<?php

declare(strict_types=1);

namespace App\Http\Session\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** An e-mail address, a password, and the second factor where one is asked for. */
final class SignInRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'email' => ['required', 'string', 'max:190'],
            'password' => ['required', 'string', 'max:190'],
            'code' => ['nullable', 'string', 'max:20'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['required' => 'Type your e-mail address and your password.', 'string' => 'Type your e-mail address and your password.'];
    }
}
