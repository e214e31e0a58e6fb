<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use App\Domain\Handoff\WebHooks;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** An address, and what it is told. */
final class WebHookRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'url' => ['required', 'url:http,https', 'max:500'],
            'events' => ['required', 'array', 'min:1'],
            'events.*' => [Rule::in(WebHooks::EVENTS)],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['url.*' => 'Write an address that begins with http:// or https://.', 'events.*' => 'Choose what it is told.'];
    }
}
