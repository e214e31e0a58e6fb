<?php

declare(strict_types=1);

namespace App\Http\Settings\Requests;

use App\Models\Store;
use Illuminate\Foundation\Http\FormRequest;

/** Another name or order for a store, or that it is used no more. */
final class ChangeStoreRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'name' => ['sometimes', 'string', 'max:60', 'regex:/\S/'],
            'position' => ['sometimes', 'integer', 'between:0,99'],
            'retired' => ['sometimes', 'boolean'],
            'mark' => ['sometimes', 'boolean'],
        ];
    }
}
