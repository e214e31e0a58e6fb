<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Which clips go, and how much the person saw that depends on them; nothing yet where they only ask. */
final class AwayClipsRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'clips' => ['required', 'array', 'list', 'between:1,1000'],
            'clips.*' => ['string', 'size:26'],
            'seen' => [$this->is('*/away') ? 'required' : 'prohibited', 'integer', 'min:0'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['clips.*' => 'Choose at most 1000 clips.', 'seen.*' => 'Look first at what depends on them.'];
    }
}
