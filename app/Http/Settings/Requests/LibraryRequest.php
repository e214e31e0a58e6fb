<?php

declare(strict_types=1);

namespace App\Http\Settings\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Whether a production's imports are shared. */
final class LibraryRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['is_library' => ['required', 'boolean']];
    }
}
