<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Other numbers for a look, and those that were seen. */
final class ChangeLookRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $rules = [];
        foreach (['was', 'now'] as $side) {
            $rules[$side] = ['required', 'array'];
            foreach (LookValues::RULES as $field => $rule) {
                $rules["$side.$field"] = $rule;
            }
        }

        return $rules;
    }
}
