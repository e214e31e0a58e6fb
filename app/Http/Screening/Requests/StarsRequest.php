<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A person's own stars for a take; null takes them away. */
final class StarsRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['stars' => ['present', 'nullable', 'integer', 'between:1,5']];
    }
}
