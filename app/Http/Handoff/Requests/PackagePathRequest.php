<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A file of a package, by its path in it. */
final class PackagePathRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['path' => ['required', 'string', 'max:500']];
    }
}
