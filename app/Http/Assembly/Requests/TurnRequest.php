<?php

declare(strict_types=1);

namespace App\Http\Assembly\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Which camera goes on air in which stretch of the cut, and with what. */
final class TurnRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'step' => ['sometimes', 'integer', 'min:0'],
            'from_ticks' => ['required', 'integer', 'min:0'],
            'to_ticks' => ['required', 'integer', 'min:1'],
            'angle' => ['required', 'string', 'max:20'],
            'takes' => ['required', 'string', 'in:both,picture,sound'],
        ];
    }
}
