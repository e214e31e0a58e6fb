<?php

declare(strict_types=1);

namespace App\Http\Account\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The password, before a second factor goes. */
final class RemoveSecondFactorRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['password' => ['required', 'string', 'max:190']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['*' => 'Type your password.'];
    }
}
