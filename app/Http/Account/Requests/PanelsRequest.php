<?php

declare(strict_types=1);

namespace App\Http\Account\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** How wide a person's panels are, by stage; CSS pixels. */
final class PanelsRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'panels' => ['present', 'array:log,bins,lineup'],
            'panels.*' => ['integer', 'between:200,4000'],
        ];
    }
}
