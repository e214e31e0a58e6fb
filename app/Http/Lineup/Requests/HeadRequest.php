<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use App\Models\Clip;
use Illuminate\Foundation\Http\FormRequest;

/** Where a clip begins to be watched, and what was seen before. */
final class HeadRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'slate' => ['sometimes', 'boolean'],
            'frames' => ['sometimes', 'nullable', 'integer'],
            'was' => ['present', 'nullable', 'integer'],
        ];
    }
}
