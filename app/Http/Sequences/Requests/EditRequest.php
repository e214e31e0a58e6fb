<?php

declare(strict_types=1);

namespace App\Http\Sequences\Requests;

use App\Domain\Sequences\SequenceStore;
use Illuminate\Foundation\Http\FormRequest;

/** Operations on a cut as a page saw it at a step. */
final class EditRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'step' => ['required', 'integer', 'min:0'],
            'label' => ['required', 'string', 'max:120'],
            'operations' => ['required', 'array', 'list', 'min:1', 'max:' . SequenceStore::MOST_OPERATIONS],
            'operations.*' => ['array'],
        ];
    }
}
