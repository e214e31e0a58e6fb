<?php

declare(strict_types=1);

namespace App\Http\Assembly\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The tracks of new cuts, in their order; none leaves them to the desk. */
final class TrackPlanRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'tracks' => ['present', 'array', 'list', 'max:' . \App\Domain\Sequences\TrackPlan::MOST],
            'tracks.*.kind' => ['required', 'string', 'in:picture,sound'],
            'tracks.*.name' => ['required', 'string', 'max:60'],
            'tracks.*.role' => ['required', 'string', 'in:' . implode(',', array_keys(\App\Domain\Sequences\TrackPlan::ROLES))],
        ];
    }
}
