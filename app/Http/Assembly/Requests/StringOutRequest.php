<?php

declare(strict_types=1);

namespace App\Http\Assembly\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** What a string-out is laid of. */
final class StringOutRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'of' => ['required', 'string', 'in:circled,line,keyword'],
            'scene' => ['sometimes', 'nullable', 'string', 'max:40', 'required_if:of,line'],
            'line' => ['sometimes', 'integer', 'min:0', 'required_if:of,line'],
            'keyword' => ['sometimes', 'string', 'max:80', 'required_if:of,keyword'],
        ];
    }
}
