<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Which rows of the plan become takes, and how they are named. */
final class CutRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'chosen' => ['required', 'array', 'max:120000'],
            'chosen.*' => ['string', 'regex:/\A[0-9A-Z]{26}:(take|false_start|wild|room_tone|mos)\z/'],
            'pattern' => ['sometimes', 'nullable', 'string', 'max:160'],
        ];
    }
}
