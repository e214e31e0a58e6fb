<?php

declare(strict_types=1);

namespace App\Http\Words\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The word at which a new passage begins. */
final class SplitPassageRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['at' => ['required', 'integer', 'min:0', 'max:5000'], 'was' => ['required', 'string', 'max:100']];
    }
}
