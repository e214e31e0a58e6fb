<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Somebody with a link begins to watch. */
final class OpenLinkRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['password' => ['sometimes', 'nullable', 'string', 'max:120']];
    }
}
