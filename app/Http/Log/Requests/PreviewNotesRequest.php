<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use App\Domain\Log\ScriptNotes\BringNotes;
use App\Models\Production;
use Cartella\Core\Log\NoteColumns;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** How a file of notes is read: where its heading stands, and what each column says. */
final class PreviewNotesRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $production = $this->route('production');
        $fields = $production instanceof Production ? array_keys(NoteColumns::targets($production->fields())) : [];

        return [
            'heading' => ['required', 'integer', 'between:-1,' . BringNotes::SHOWN_ROWS],
            'columns' => ['required', 'array', 'max:100'],
            'columns.*' => [Rule::in($fields)],
            'corrects' => ['sometimes', 'nullable', 'string', 'max:190'],
        ];
    }
}
