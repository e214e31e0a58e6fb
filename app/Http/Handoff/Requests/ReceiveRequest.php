<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use Cartella\Core\Time\Exception\InvalidTime;
use Cartella\Core\Time\FrameRate;
use Illuminate\Foundation\Http\FormRequest;

/** A list of the editing team: the file, the rate of one that says none, and the day on whose page it was brought in. */
final class ReceiveRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'file' => ['required', 'file'],
            'rate' => ['sometimes', 'nullable', 'string', self::rate(...)],
            'day' => ['sometimes', 'nullable', 'string', 'size:26'],
        ];
    }

    public function frameRate(): ?FrameRate
    {
        $rate = (string) $this->validated('rate');

        return $rate === '' ? null : FrameRate::parse($rate);
    }

    private static function rate(string $field, mixed $value, \Closure $fail): void
    {
        try {
            FrameRate::parse((string) $value);
        } catch (InvalidTime $bad) {
            $fail($bad->getMessage());
        }
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['file.*' => 'Choose an EDL, an OTIO or an AAF file of at most 64 MB.'];
    }
}
