<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** Whose word counts where sources disagree about a field. */
final class SettleRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'field' => ['required', 'string', 'max:20'],
            'source' => ['required', Rule::in(['now', 'script', 'ixml', 'name'])],
            'alike' => ['sometimes', 'boolean'],
        ];
    }
}
