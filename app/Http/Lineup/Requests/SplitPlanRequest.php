<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** By what a long recording would be split. */
final class SplitPlanRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'by' => ['required', Rule::in(['windows', 'marks', 'angle'])],
            'device' => ['required_if:by,angle', 'string', 'max:12'],
        ];
    }
}
