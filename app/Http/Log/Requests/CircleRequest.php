<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Cartella\Core\Fields\TakeStatus;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** The status that was seen, and the new one. */
final class CircleRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'was' => ['required', Rule::enum(TakeStatus::class)],
            'now' => ['required', Rule::enum(TakeStatus::class)],
        ];
    }
}
