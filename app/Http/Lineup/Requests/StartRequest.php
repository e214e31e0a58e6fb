<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** What is lined up, by which ways in which order, and against what. */
final class StartRequest extends FormRequest
{
    private const WAYS = ['sound', 'timecode', 'clock', 'mark', 'clap', 'in', 'out', 'start'];

    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'ways' => ['sometimes', 'array', 'between:1,8'],
            'ways.*' => [Rule::in(self::WAYS), 'distinct'],
            'cut' => ['sometimes', 'boolean'],
            'anchor' => ['sometimes', 'nullable', 'string', 'size:26'],
            'scope' => ['sometimes', Rule::in(['day', 'card', 'scene', 'clips'])],
            'key' => ['sometimes', 'nullable', 'string', 'max:60'],
            'clips' => ['sometimes', 'array', 'max:60000'],
            'clips.*' => ['string', 'size:26'],
        ];
    }
}
