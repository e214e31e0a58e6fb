<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use Cartella\Core\Media\ImportList;
use Cartella\Core\Media\MediaNames;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** Which files are to come in, and as what. */
final class BeginImportRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'files' => ['required', 'array', 'list', 'between:1,' . ImportList::MOST],
            'files.*' => ['array:path,size_bytes'],
            'files.*.path' => ['required', 'string', 'max:4000'],
            'files.*.size_bytes' => ['required', 'integer', 'min:0'],
            'import_kind' => ['nullable', Rule::in(MediaNames::IMPORTS)],
        ];
    }

    public function list(): ImportList
    {
        return ImportList::of(
            array_map(
                static fn(array $file): array => ['path' => (string) $file['path'], 'size_bytes' => (int) $file['size_bytes']],
                $this->validated('files'),
            ),
        );
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'files.*' => sprintf('Bring in at most %d files at once.', ImportList::MOST),
            'import_kind.*' => 'Choose what kind of import it is.',
        ];
    }
}
