<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use App\Support\Clock;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** The device whose learned clock is used, and for how long. */
final class ApplyClockRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['device' => ['required', 'string', 'max:12'], 'for' => ['required', Rule::in(['day', 'device'])]];
    }
}
