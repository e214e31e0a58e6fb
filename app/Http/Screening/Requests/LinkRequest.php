<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A new link to a reel: for whom, for how many hours, and with which password if any. */
final class LinkRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'for_name' => ['required', 'string', 'max:80', 'regex:/\S/'],
            'hours' => ['required', 'integer', 'between:1,2160'],
            'password' => ['sometimes', 'nullable', 'string', 'min:4', 'max:120'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'for_name.*' => 'Say who the link is for; the name stands over the picture.',
            'password.min' => 'A password has four letters at least.',
        ];
    }
}
