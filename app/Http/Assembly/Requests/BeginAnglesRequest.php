<?php

declare(strict_types=1);

namespace App\Http\Assembly\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The event of which a cut is begun. */
final class BeginAnglesRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'event' => ['required', 'string', 'max:40'],
        ];
    }
}
