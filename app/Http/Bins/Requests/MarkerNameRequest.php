<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Another name or note for a marker. */
final class MarkerNameRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['name' => ['present', 'nullable', 'string', 'max:160'], 'note' => ['sometimes', 'nullable', 'string', 'max:1000']];
    }
}
