<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Two clips and the stretch of both that is heard. */
final class PairRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'against' => ['required', 'string', 'size:26'],
            'from_ticks' => ['required', 'integer'],
            'apart_ticks' => ['required', 'integer'],
            'seconds' => ['required', 'numeric', 'between:0.01,20'],
        ];
    }
}
