<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Changes of many takes in one step; each is checked field by field when it is read. */
final class EditManyRequest extends FormRequest
{
    private const BULK = 2000;

    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['edits' => ['required', 'array', 'between:1,' . self::BULK]];
    }
}
