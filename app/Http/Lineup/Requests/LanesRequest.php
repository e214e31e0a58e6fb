<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The devices in the order of their lanes. */
final class LanesRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'letters' => ['required', 'array', 'between:1,64'],
            'letters.*' => ['string', 'max:12', 'distinct'],
        ];
    }
}
