<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Patterns of slates that are tried on a day. */
final class TryPatternsRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'patterns' => ['required', 'array', 'between:1,20'],
            'patterns.*' => ['required', 'string', 'max:160'],
        ];
    }
}
