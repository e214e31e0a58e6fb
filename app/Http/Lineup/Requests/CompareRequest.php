<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The run that another one is compared with; none is what stands now. */
final class CompareRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['with' => ['sometimes', 'nullable', 'string', 'size:26']];
    }
}
