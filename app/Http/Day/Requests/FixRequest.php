<?php

declare(strict_types=1);

namespace App\Http\Day\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Which open point is fixed, and how. */
final class FixRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['key' => ['required', 'string', 'max:120'], 'fix' => ['required', 'string', 'max:60']];
    }
}
