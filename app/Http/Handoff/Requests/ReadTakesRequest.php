<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** From which take on a page of takes is read. */
final class ReadTakesRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['from' => ['sometimes', 'integer', 'min:0']];
    }
}
