<?php

declare(strict_types=1);

namespace App\Http\Account\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The first code of a new second factor. */
final class ConfirmSecondFactorRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['code' => ['required', 'string', 'max:20']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['*' => 'Type the six digits.'];
    }
}
