<?php

declare(strict_types=1);

namespace App\Http\Settings\Requests;

use App\Models\Role;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** Another role for somebody, or whether they need a second factor. */
final class ChangePersonRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'role' => ['sometimes', Rule::enum(Role::class)],
            'must_use_second_factor' => ['sometimes', 'boolean'],
        ];
    }
}
