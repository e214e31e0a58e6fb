<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A new reel of a day: its name, and whether only circled takes go in. */
final class BuildReelRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['name' => ['sometimes', 'nullable', 'string', 'max:120'], 'circled_only' => ['required', 'boolean']];
    }
}
