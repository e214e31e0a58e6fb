<?php

declare(strict_types=1);

namespace App\Http\Settings\Requests;

use App\Domain\Productions\EditFields;
use App\Models\Production;
use Cartella\Core\Fields\FieldType;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** A field that the production adds for itself. */
final class AddFieldRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'label' => ['required', 'string', 'max:40', 'regex:/\S/'],
            'type' => ['required', Rule::in(array_column(FieldType::ofProductions(), 'value'))],
            'choices' => ['sometimes', 'array', 'max:' . EditFields::CHOICES],
            'choices.*' => ['string', 'max:60'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['label.*' => 'Give the field a name of at most 40 characters.'];
    }
}
