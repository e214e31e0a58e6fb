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
    /** @return array<string, list<string|\Closure>> */
    public function rules(): array
    {
        return [
            // One look at all of them: a rule for each of tens of thousands takes seconds.
            'refs' => [
                'required',
                'array',
                'list',
                'between:1,' . EditBins::MOST,
                static function (string $attribute, mixed $refs, \Closure $fail): void {
                    foreach (is_array($refs) ? $refs : [] as $ref) {
                        if (!is_string($ref) || strlen($ref) > Reference::LONGEST) {
                            $fail('One of those is no reference.');

                            return;
                        }
                    }
                },
            ],
            'from' => ['sometimes', 'nullable', 'string', 'max:' . BinKey::LONGEST],
        ];
    }
}
