<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use App\Domain\Bins\BinKey;
use Illuminate\Foundation\Http\FormRequest;

/** The days and bins that go to the editing team. */
final class HandOffRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'days' => ['present', 'array'],
            'days.*' => ['string', 'size:26'],
            'bins' => ['present', 'array'],
            'bins.*' => ['string', 'max:' . BinKey::LONGEST],
        ];
    }
}
