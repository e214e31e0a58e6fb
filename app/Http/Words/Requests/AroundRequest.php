<?php

declare(strict_types=1);

namespace App\Http\Words\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Chosen words of a clip: ticks from its first frame, with where the words beside them end and begin. */
final class AroundRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'sound' => ['required', 'string', 'size:26'],
            'start' => ['required', 'integer'],
            'end' => ['required', 'integer', 'gte:start'],
            'before' => ['sometimes', 'nullable', 'integer'],
            'after' => ['sometimes', 'nullable', 'integer'],
        ];
    }
}
