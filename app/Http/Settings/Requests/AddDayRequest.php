<?php

declare(strict_types=1);

namespace App\Http\Settings\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A new shoot day. */
final class AddDayRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['date' => ['required', 'date_format:Y-m-d'], 'unit' => ['nullable', 'string', 'max:60']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['date.*' => 'Write the date as 2026-10-07.'];
    }
}
