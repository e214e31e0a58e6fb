<?php

declare(strict_types=1);

namespace App\Http\Words\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** What counts as a pause: dBFS, and seconds. */
final class PausesRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'sound' => ['sometimes', 'string', 'size:26'],
            'below' => ['sometimes', 'nullable', 'numeric', 'between:-90,0'],
            'longer' => ['sometimes', 'numeric', 'between:0.1,60'],
            'padding' => ['sometimes', 'numeric', 'between:0,2'],
        ];
    }
}
