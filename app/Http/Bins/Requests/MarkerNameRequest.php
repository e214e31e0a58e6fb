<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use App\Models\MarkerAbout;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** Another name or note for a marker. */
final class MarkerNameRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
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
