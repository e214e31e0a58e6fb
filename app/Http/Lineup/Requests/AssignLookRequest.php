<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use App\Models\Look;
use Illuminate\Foundation\Http\FormRequest;

/** A look, and the device or clips that it is for. */
final class AssignLookRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'look' => ['present', 'nullable', 'string', 'size:26'],
            'device' => ['required_without:clips', 'string', 'max:12'],
            'clips' => ['required_without:device', 'array', 'between:1,1000'],
            'clips.*' => ['string', 'size:26'],
        ];
    }
}
