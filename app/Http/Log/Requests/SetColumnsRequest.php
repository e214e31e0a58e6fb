<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The columns of the sheet as a person wants them. */
final class SetColumnsRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'columns' => ['present', 'nullable', 'array', 'max:40'],
            'columns.*.key' => ['required', 'string', 'max:30'],
            'columns.*.width' => ['required', 'integer', 'between:30,900'],
            'columns.*.shown' => ['required', 'boolean'],
        ];
    }
}
