<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use App\Domain\Bins\BinKey;
use App\Domain\Bins\EditBins;
use Cartella\Core\Footage\Reference;
use Illuminate\Foundation\Http\FormRequest;

/** References that go into a bin or out of it. */
final class BinItemsRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'refs' => ['required', 'array', 'list', 'between:1,' . EditBins::MOST],
            'refs.*' => ['string', 'max:' . Reference::LONGEST],
            'from' => ['sometimes', 'nullable', 'string', 'max:' . BinKey::LONGEST],
        ];
    }
}
