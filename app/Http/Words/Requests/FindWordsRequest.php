<?php

declare(strict_types=1);

namespace App\Http\Words\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Clips in which words are to be found; none means all of a day that have none. */
final class FindWordsRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'clips' => ['sometimes', 'array', 'min:1', 'max:2000'],
            'clips.*' => ['string', 'size:26'],
            'language' => ['required', 'string', 'regex:/\A[A-Za-z0-9_-]{1,20}\z/'],
            'service' => ['sometimes', 'boolean'],
            'again' => ['sometimes', 'boolean'],
        ];
    }
}
