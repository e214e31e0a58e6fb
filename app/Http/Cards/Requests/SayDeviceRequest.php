<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use App\Models\Device;
use Cartella\Core\Media\MediaNames;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** Which device recorded some clips, or what kind of import they are. */
final class SayDeviceRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'clips' => ['required', 'array', 'between:1,1000'],
            'clips.*' => ['string', 'size:26'],
            'device' => ['required_without:import_kind', 'nullable', 'string', 'max:12'],
            'import_kind' => ['nullable', Rule::in(MediaNames::IMPORTS)],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['device.*' => 'Choose a device, or what kind of import it is.'];
    }
}
