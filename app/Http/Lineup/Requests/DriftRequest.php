<?php

declare(strict_types=1);

namespace App\Http\Lineup\Requests;

use App\Domain\Lineup\Drift;
use App\Models\Clip;
use Illuminate\Foundation\Http\FormRequest;

/** Whether the measured drift is taken out, of one clip or of its device. */
final class DriftRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['applied' => ['required', 'boolean'], 'device' => ['required', 'boolean']];
    }
}
