<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Other patterns of slates or names, and those that were seen. */
final class SetPatternsRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'was' => ['required', 'array', 'between:1,20'],
            'was.*' => ['required', 'string', 'max:160'],
            'now' => ['required', 'array', 'between:1,20'],
            'now.*' => ['required', 'string', 'max:160'],
        ];
    }
}
