<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use App\Domain\Screening\ExportReel;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** A reel as a file: what is written over the picture, how high it is, and whether it is made of the recordings themselves. */
final class ExportRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'slate' => ['required', 'boolean'],
            'timecode' => ['required', 'boolean'],
            'name' => ['sometimes', 'nullable', 'string', 'max:80'],
            'originals' => ['required', 'boolean'],
            'height' => ['required', 'integer', Rule::in(ExportReel::HEIGHTS)],
            'tracks' => ['sometimes', 'boolean'],
        ];
    }

    /** @return array{slate: bool, timecode: bool, name: string, originals: bool, height: int, tracks: bool} */
    public function wanted(): array
    {
        return [
            'slate' => $this->boolean('slate'),
            'timecode' => $this->boolean('timecode'),
            'name' => trim((string) $this->validated('name')),
            'originals' => $this->boolean('originals'),
            'height' => $this->integer('height'),
            'tracks' => $this->boolean('tracks'),
        ];
    }
}
