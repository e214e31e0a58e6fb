<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Where a person's cursor stands. */
final class HereRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['row' => ['present', 'nullable', 'string', 'max:26']];
    }
}
