<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Which rows of the sheet are asked for again. */
final class SomeTakesRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['ulids' => ['required', 'string', 'max:2000', 'regex:/\A[0-9A-Za-z,]+\z/']];
    }
}
