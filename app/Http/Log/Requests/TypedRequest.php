<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** What somebody typed into the log line, and at which row. */
final class TypedRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'text' => ['required', 'string', 'max:500'],
            'row' => ['present', 'nullable', 'string', 'size:26'],
            'last' => ['sometimes', 'nullable', 'string', 'size:26'],
            'seen' => ['sometimes', 'array', 'max:20'],
        ];
    }
}
