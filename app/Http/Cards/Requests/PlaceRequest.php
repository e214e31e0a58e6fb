<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use App\Models\Card;
use Illuminate\Foundation\Http\FormRequest;

/** A card and, while it is tried, a template: where would it land? */
final class PlaceRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'roll' => ['required', 'string', 'max:60'],
            'device' => ['nullable', 'string', 'max:12'],
            'template' => ['nullable', 'string', 'max:400'],
        ];
    }
}
