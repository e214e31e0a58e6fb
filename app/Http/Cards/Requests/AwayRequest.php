<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** How much the person saw that depends on what goes. */
final class AwayRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['seen' => ['required', 'integer', 'min:0']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['seen.*' => 'Look first at what depends on it.'];
    }
}
