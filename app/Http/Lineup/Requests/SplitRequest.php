<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use App\Domain\Lineup\SplitIntoTakes;
use Illuminate\Foundation\Http\FormRequest;

/** The stretches of a long recording, each with its slate, and the slate that was seen. */
final class SplitRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'spans' => ['required', 'array', 'between:1,' . SplitIntoTakes::MOST],
            'spans.*.from' => ['required', 'integer', 'min:0'],
            'spans.*.to' => ['required', 'integer', 'min:1'],
            'spans.*.slate' => ['required', 'string', 'max:40'],
            'was' => ['present', 'nullable', 'string', 'max:80'],
        ];
    }
}
