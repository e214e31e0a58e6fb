<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Whose word counts where sources disagree about a field. */
final class SettleRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'field' => ['required', 'string', 'max:40'],
            'said' => ['required', 'string', 'max:16'],
            'alike' => ['sometimes', 'boolean'],
        ];
    }
}
