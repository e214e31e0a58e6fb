<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use App\Models\Clip;
use App\Models\Device;
use Illuminate\Foundation\Http\FormRequest;

/** What a frame of a clip really reads, and for how much of its device that holds. */
final class ClockRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'frame' => ['required', 'integer', 'min:0'],
            'reads' => ['required', 'string', 'max:16'],
            'for' => ['required', 'in:card,day,device'],
        ];
    }
}
