<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The slate that clips are of, or none, or that they are wild; and the slates that were seen. */
final class SlateRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'clips' => ['required', 'array', 'between:1,5000'],
            'clips.*' => ['string', 'size:26'],
            // One for all; with a plus behind it, it counts on.
            'slate' => [$this->has('slates') || $this->has('wild') ? 'sometimes' : 'present', 'nullable', 'string', 'max:41'],
            'slates' => ['sometimes', 'array', 'size:' . count((array) $this->input('clips'))],
            'slates.*' => ['nullable', 'string', 'max:40'],
            'wild' => ['sometimes', 'boolean'],
            'false_start' => ['sometimes', 'boolean'],
            'was' => ['sometimes', 'nullable', 'string', 'max:40'],
            'were' => ['sometimes', 'array', 'size:' . count((array) $this->input('clips'))],
            'were.*' => ['nullable', 'string', 'max:40'],
        ];
    }
}
