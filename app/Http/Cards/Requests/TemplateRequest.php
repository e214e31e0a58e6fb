<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Another template for where cards land, and the one that was seen. */
final class TemplateRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['was' => ['required', 'string', 'max:400'], 'now' => ['required', 'string', 'max:400']];
    }
}
