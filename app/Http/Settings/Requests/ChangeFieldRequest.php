<?php

declare(strict_types=1);

namespace App\Http\Settings\Requests;

use App\Domain\Productions\EditFields;
use Illuminate\Foundation\Http\FormRequest;

/** Another label or other choices for a field, or that it is used no more. */
final class ChangeFieldRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'label' => ['sometimes', 'required', 'string', 'max:40', 'regex:/\S/'],
            'choices' => ['sometimes', 'array', 'max:' . EditFields::CHOICES],
            'choices.*' => ['string', 'max:60'],
            'retired' => ['sometimes', 'boolean'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['label.*' => 'Give the field a name of at most 40 characters.'];
    }
}
