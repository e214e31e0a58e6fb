<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Which sheet of a workbook holds the notes, from 0. */
final class SheetRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['sheet' => ['required', 'integer', 'between:0,99']];
    }
}
