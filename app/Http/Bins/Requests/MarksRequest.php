<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use App\Models\Clip;
use Illuminate\Foundation\Http\FormRequest;

/** One person's in and out on a clip, inside it. */
final class MarksRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        $clip = $this->route('clip');
        $limit = $clip instanceof Clip ? (int) $clip->duration_ticks : 0;

        return [
            'in_ticks' => ['present', 'nullable', 'integer', "between:0,$limit"],
            'out_ticks' => ['present', 'nullable', 'integer', "between:0,$limit"],
        ];
    }
}
