<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use App\Models\Card;
use App\Models\Device;
use Illuminate\Foundation\Http\FormRequest;

/** How a card is offloaded: its roll, its device, where to. */
final class OffloadRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'roll' => ['required', 'string', 'max:60', 'regex:/\A[\p{L}\p{N}][\p{L}\p{N} _.-]*\z/u'],
            'device' => ['nullable', 'string', 'max:12'],
            'compare' => ['nullable', 'boolean'],
            'to' => ['nullable', 'array', 'between:1,20'],
            'to.*' => ['string', 'max:40'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['roll.*' => 'A roll is named with letters, digits, spaces, dots and dashes.'];
    }
}
