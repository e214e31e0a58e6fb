<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use App\Models\Clip;
use Cartella\Core\Time\Ticks;
use Illuminate\Foundation\Http\FormRequest;

/** A place of a clip against another one, said by hand. */
final class ByHandRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $day = 2 * 86_400 * Ticks::PER_SECOND;

        return [
            'against' => ['required', 'string', 'size:26'],
            'against_ticks' => ['required', 'integer', "between:0,$day"],
            'frame' => ['required_without:own_ticks', 'integer', 'min:0'],
            'own_ticks' => ['required_without:frame', 'integer', "between:0,$day"],
            'was_ticks' => ['present', 'nullable', 'integer'],
        ];
    }
}
