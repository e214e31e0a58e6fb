<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Where a bin goes: into another or to the top, before one of those there or behind them. */
final class PlaceBinRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['parent' => ['present', 'nullable', 'string', 'size:26'], 'before' => ['sometimes', 'nullable', 'string', 'size:26']];
    }
}
