<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use App\Models\Clip;
use Illuminate\Foundation\Http\FormRequest;

/** Whether a clip takes part in the line-up. */
final class LeaveOutRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['out' => ['required', 'boolean']];
    }
}
