<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use App\Models\MarkerAbout;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** A place of a clip, or a stretch, with a name and a note. */
final class MarkerRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'in_ticks' => ['required', 'integer', 'min:0'],
            'out_ticks' => ['sometimes', 'nullable', 'integer'],
            'name' => ['present', 'nullable', 'string', 'max:160'],
            'note' => ['sometimes', 'nullable', 'string', 'max:1000'],
            'about' => ['sometimes', 'nullable', Rule::enum(MarkerAbout::class)],
        ];
    }

    public function about(): ?MarkerAbout
    {
        return MarkerAbout::tryFrom((string) $this->validated('about'));
    }
}
