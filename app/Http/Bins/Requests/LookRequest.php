<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

/** A rule that is being written, and a page of what it lets through. */
final class LookRequest extends BinPageRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['rule' => ['required', 'array']] + parent::rules();
    }
}
