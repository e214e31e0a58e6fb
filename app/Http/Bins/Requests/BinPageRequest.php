<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Which rows of a bin. */
final class BinPageRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['from' => ['sometimes', 'integer', 'min:0'], 'limit' => ['sometimes', 'integer', 'between:1,500']];
    }
}
