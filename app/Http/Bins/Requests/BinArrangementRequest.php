<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** How a person looks at a bin. */
final class BinArrangementRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'show' => ['required', 'in:rows,pictures,scenes'],
            'order' => ['required', 'string', 'max:60'],
            'down' => ['required', 'boolean'],
            'takes' => ['required', 'boolean'],
            'days' => ['present', 'array', 'list', 'max:400'],
            'days.*' => ['string', 'size:26'],
            'devices' => ['present', 'array', 'list', 'max:100'],
            'devices.*' => ['string', 'max:12'],
            'columns' => ['present', 'array', 'list', 'max:100'],
            'columns.*.key' => ['required', 'string', 'max:60'],
            'columns.*.width' => ['required', 'integer', 'between:20,1000'],
            'columns.*.shown' => ['required', 'boolean'],
        ];
    }
}
