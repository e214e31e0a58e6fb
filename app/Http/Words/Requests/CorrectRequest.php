<?php

declare(strict_types=1);

namespace App\Http\Words\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Words that follow each other, as the person saw them, and what is written instead. */
final class CorrectRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'from' => ['required', 'integer', 'min:0', 'max:5000'],
            'was' => ['required', 'array', 'min:1', 'max:200'],
            'was.*' => ['string', 'max:100'],
            'text' => ['present', 'nullable', 'string', 'max:1000'],
        ];
    }
}
