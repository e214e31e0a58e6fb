<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** Recordings whose channels get names of their own. */
final class SplitChannelsRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['clips' => ['required', 'array', 'list', 'between:1,5000'], 'clips.*' => ['string', 'size:26']];
    }
}
