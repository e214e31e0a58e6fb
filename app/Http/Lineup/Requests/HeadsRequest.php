<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Which pictures of a day begin at their slates, or whole again. */
final class HeadsRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'clips' => ['sometimes', 'array', 'between:1,60000'],
            'clips.*' => ['string', 'size:26'],
            'whole' => ['required', 'boolean'],
        ];
    }
}
