<?php

declare(strict_types=1);

namespace App\Http\Settings\Requests;

use App\Models\Production;
use App\Models\Role;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** Somebody new in a production. */
final class AddPersonRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'email' => ['required', 'string', 'email', 'max:190'],
            'name' => ['required', 'string', 'max:120', 'regex:/\S/'],
            'role' => ['required', Rule::enum(Role::class)],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['email.*' => 'Give an e-mail address.', 'name.*' => 'Give a name.', 'role.*' => 'Choose a role.'];
    }
}
