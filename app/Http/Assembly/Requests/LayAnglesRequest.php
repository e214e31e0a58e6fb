<?php

declare(strict_types=1);

namespace App\Http\Assembly\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Into which cut an angle cut is laid, and where. */
final class LayAnglesRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'into' => ['required', 'string', 'size:26'],
            'at_ticks' => ['present', 'nullable', 'integer', 'min:0'],
        ];
    }
}
