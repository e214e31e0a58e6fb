<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Where all cards of the day go to. */
final class OffloadAllRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['to' => ['nullable', 'array', 'between:1,20'], 'to.*' => ['string', 'max:40']];
    }
}
