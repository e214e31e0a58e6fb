<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The older cut that one is compared with. */
final class CompareRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['with' => ['required', 'string', 'size:26']];
    }
}
