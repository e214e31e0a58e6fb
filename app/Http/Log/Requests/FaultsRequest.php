<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** From which of the cells that were left out on. */
final class FaultsRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['from' => ['sometimes', 'integer', 'min:0']];
    }
}
