<?php

declare(strict_types=1);

namespace App\Http\Sequences\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Stretches of clips for a cut, and where they go: a place of it, or its end. */
final class PiecesRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'pieces' => ['required', 'array', 'list', 'min:1', 'max:500'],
            'pieces.*.clip' => ['required', 'string', 'size:26'],
            'pieces.*.in_ticks' => ['required', 'integer', 'min:0'],
            'pieces.*.out_ticks' => ['required', 'integer', 'min:1'],
            'pieces.*.take' => ['sometimes', 'nullable', 'string', 'size:26'],
            'pieces.*.angle' => ['sometimes', 'nullable', 'string', 'max:20'],
            'pieces.*.character' => ['sometimes', 'nullable', 'string', 'max:60'],
            'how' => ['sometimes', 'string', 'in:append,insert,lay_over,instead'],
            'until_ticks' => ['required_if:how,instead', 'integer', 'gt:at_ticks'],
            'takes' => ['sometimes', 'string', 'in:both,picture,sound'],
            'track' => ['sometimes', 'nullable', 'integer', 'min:0'],
            'step' => ['sometimes', 'integer', 'min:0'],
            'at_ticks' => ['present', 'nullable', 'integer', 'min:0'],
            'label' => ['required', 'string', 'max:120'],
        ];
    }
}
