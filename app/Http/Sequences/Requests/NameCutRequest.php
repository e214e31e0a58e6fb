<?php

declare(strict_types=1);

namespace App\Http\Sequences\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Another name for a cut. */
final class NameCutRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['name' => ['required', 'string', 'max:120']];
    }
}
