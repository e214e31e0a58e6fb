<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use App\Domain\Bins\BinArrangement;
use Illuminate\Foundation\Http\FormRequest;

/** Which rows of a bin, in which order, of which days and devices. */
class BinPageRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'from' => ['sometimes', 'integer', 'min:0'],
            'limit' => ['sometimes', 'integer', 'between:1,500'],
            'order' => ['sometimes', 'string', 'max:60'],
            'down' => ['sometimes', 'boolean'],
            // Only how much it is, and how long.
            'sum' => ['sometimes', 'boolean'],
            'takes' => ['sometimes', 'boolean'],
            'days' => ['sometimes', 'array', 'max:400'],
            'days.*' => ['string', 'size:26'],
            'devices' => ['sometimes', 'array', 'max:100'],
            'devices.*' => ['string', 'max:12'],
        ];
    }

    public function arrangement(): BinArrangement
    {
        return new BinArrangement(
            $this->string('order', 'slate')->toString(),
            $this->boolean('down'),
            array_values($this->validated('days') ?? []),
            array_values($this->validated('devices') ?? []),
            $this->boolean('takes'),
        );
    }
}
