<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use App\Models\Clip;
use Illuminate\Foundation\Http\FormRequest;

/** The slate that a clip is of, or none, and the one that was seen. */
final class SlateRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'clips' => ['required', 'array', 'between:1,500'],
            'clips.*' => ['string', 'size:26'],
            'slate' => ['present', 'nullable', 'string', 'max:40'],
            'false_start' => ['sometimes', 'boolean'],
            'was' => ['sometimes', 'nullable', 'string', 'max:40'],
        ];
    }
}
