<?php

declare(strict_types=1);

namespace App\Http\Words\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Where another service is, and what opens it; no address takes it away. */
final class WordsServiceRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'url' => ['present', 'nullable', 'string', 'max:300', 'url:http,https'],
            'token' => ['sometimes', 'nullable', 'string', 'max:300'],
        ];
    }
}
