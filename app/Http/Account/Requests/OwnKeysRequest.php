<?php

declare(strict_types=1);

namespace App\Http\Account\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** A person's own keys: by the place on the card, the keys that stand for it. */
final class OwnKeysRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'keys' => ['present', 'array', 'max:300'],
            'keys.*' => ['array', 'list', 'between:1,12'],
            'keys.*.*' => ['string', 'between:1,30'],
        ];
    }
}
