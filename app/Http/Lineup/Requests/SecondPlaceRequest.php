<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** The place that was seen, before the second best is taken. */
final class SecondPlaceRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['was_ticks' => ['present', 'nullable', 'integer']];
    }
}
