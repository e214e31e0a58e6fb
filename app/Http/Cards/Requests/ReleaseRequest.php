<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The words that confirm a release where both copies lie on one disk. */
final class ReleaseRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['words' => ['nullable', 'string', 'max:40']];
    }
}
