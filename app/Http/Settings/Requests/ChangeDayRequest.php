<?php

declare(strict_types=1);

namespace App\Http\Settings\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Another number, date or unit for a day. */
final class ChangeDayRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'number' => ['sometimes', 'integer', 'between:1,9999'],
            'date' => ['sometimes', 'date_format:Y-m-d'],
            'unit' => ['sometimes', 'string', 'max:60', 'regex:/\S/'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['number.*' => 'A day has a number from 1.', 'date.*' => 'Write the date as 2026-10-07.', 'unit.*' => 'Name the unit.'];
    }
}
