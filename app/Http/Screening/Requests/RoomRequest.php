<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Where the room is, at which moment of the server's clock, how it moves, and what of the reel it shows. */
final class RoomRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'at_ticks' => ['required', 'integer', 'min:0', 'max:9007199254740991'],
            'speed' => ['required', 'numeric', 'between:-8,8'],
            'epoch_ms' => ['required', 'integer', 'min:0', 'max:9007199254740991'],
            'shows' => ['present', 'nullable', 'string', 'max:500'],
        ];
    }
}
