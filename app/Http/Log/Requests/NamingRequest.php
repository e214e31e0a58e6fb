<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use App\Domain\Footage\GiveNames;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** What is named, and by which pattern. */
final class NamingRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'what' => ['required', Rule::in(['clips', 'takes', 'subclips'])],
            'ulids' => ['required', 'array', 'between:1,' . GiveNames::LIMIT],
            'ulids.*' => ['string', 'size:26'],
            'pattern' => ['required', 'string', 'max:160'],
            'start' => ['sometimes', 'integer', 'between:0,99999'],
            'step' => ['sometimes', 'integer', 'between:1,1000'],
        ];
    }

    /** @return array{0: 'clips'|'takes'|'subclips', 1: list<string>, 2: string, 3: int, 4: int} what, which, pattern, first number, step */
    public function naming(): array
    {
        $input = $this->validated();

        return [
            $input['what'],
            array_values($input['ulids']),
            $input['pattern'],
            (int) ($input['start'] ?? 1),
            (int) ($input['step'] ?? 1),
        ];
    }
}
