<?php

declare(strict_types=1);

namespace App\Http\Settings\Requests;

use App\Domain\Cards\EditDevices;
use App\Models\Device;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** A device, or what changes of one. */
final class DeviceRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $need = $this->isMethod('POST') ? 'required' : 'sometimes';

        return [
            'letter' => [$need, 'string', 'max:12', 'regex:/\A[\p{L}\p{N}][\p{L}\p{N}_-]*\z/u'],
            'kind' => [$need, Rule::in(Device::KINDS)],
            'note' => ['sometimes', 'nullable', 'string', 'max:60'],
            'colour' => ['sometimes', 'nullable', 'integer', 'between:0,' . (EditDevices::COLOURS - 1)],
            'retired' => ['sometimes', 'boolean'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['letter.*' => 'A device is called by a letter or a short word.', 'kind.*' => 'Choose what it is.'];
    }

    /** @return array<string, mixed> */
    public function facts(): array
    {
        $input = $this->validated();

        return array_key_exists('note', $input) ? ['note' => trim((string) $input['note'])] + $input : $input;
    }
}
