<?php

declare(strict_types=1);

namespace App\Http\Words\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A text of what is said: a file, or pasted. */
final class BringWordsRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'file' => ['required_without:text', 'file', 'max:32768'],
            'text' => ['required_without:file', 'string', 'max:2000000'],
            'again' => ['sometimes', 'boolean'],
            'language' => ['required', 'string', 'regex:/\A[A-Za-z0-9_-]{1,20}\z/'],
        ];
    }

    /** Its bytes as they came. */
    public function bytes(): string
    {
        $file = $this->file('file');

        return $file instanceof \Illuminate\Http\UploadedFile
            ? (string) file_get_contents($file->getRealPath())
            : (string) $this->validated('text');
    }
}
