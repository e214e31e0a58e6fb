<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use App\Models\Card;
use App\Models\Device;
use Illuminate\Foundation\Http\FormRequest;

/** Another device for a whole card, and the one that was seen. */
final class CardDeviceRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['was' => ['nullable', 'string', 'max:12'], 'device' => ['present', 'nullable', 'string', 'max:12']];
    }
}
