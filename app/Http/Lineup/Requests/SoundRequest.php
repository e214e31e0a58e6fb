<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use App\Domain\Lineup\SoundOfTake;
use Illuminate\Foundation\Http\FormRequest;

/** Which channels are heard under a take and how loud, and what was seen before. */
final class SoundRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $rules = [];
        foreach (['channels', 'was'] as $list) {
            $rules += [
                $list => ['present', 'nullable', 'array', 'max:64'],
                "$list.*.index" => ['required', 'integer', 'between:1,64', 'distinct'],
                "$list.*.on" => ['required', 'boolean'],
                "$list.*.gain_db" => ['required', 'numeric', 'between:' . SoundOfTake::LEAST_DB . ',' . SoundOfTake::MOST_DB],
            ];
        }

        return $rules;
    }
}
