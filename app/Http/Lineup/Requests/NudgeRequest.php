<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use App\Models\Clip;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** How far a clip is moved, from the place that was seen. */
final class NudgeRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'unit' => ['required', Rule::in(['frame', 'sample', 'ticks'])],
            'by' => ['required', 'integer', 'between:-500000000000,500000000000'],
            'was_ticks' => ['sometimes', 'nullable', 'integer'],
        ];
    }
}
