<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use App\Domain\Footage\ColourClips;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** A colour for some clips, or none. */
final class ColoursRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'clips' => ['required', 'array', 'list', 'between:1,5000'],
            'clips.*' => ['string', 'size:26'],
            'colour' => ['present', 'nullable', Rule::in(ColourClips::COLOURS)],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['clips.*' => 'Choose at most 5000 clips.', 'colour.*' => 'Choose one of the colours.'];
    }
}
