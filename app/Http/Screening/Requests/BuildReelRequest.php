<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use App\Domain\Screening\ReelAngles;
use App\Domain\Screening\ReelBegin;
use App\Domain\Screening\ReelFrom;
use App\Domain\Screening\ReelOrder;
use App\Domain\Screening\ReelRecipe;
use App\Models\ShootDay;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** A reel: its name, and by what it is made; of the day on whose page it is made where nothing else is said. */
final class BuildReelRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'name' => ['sometimes', 'nullable', 'string', 'max:120'],
            'circled_only' => ['required', 'boolean'],
            'from' => ['sometimes', Rule::enum(ReelFrom::class)],
            'what' => ['required_with:from', 'array', 'min:1', 'max:' . ReelRecipe::MOST],
            'what.*' => ['string', 'max:200'],
            'angles' => ['sometimes', Rule::enum(ReelAngles::class)],
            'device' => ['required_if:angles,' . ReelAngles::Device->value, 'nullable', 'string', 'max:12'],
            'order' => ['sometimes', Rule::enum(ReelOrder::class)],
            'begin' => ['sometimes', Rule::enum(ReelBegin::class)],
        ];
    }

    public function recipe(ShootDay $day): ReelRecipe
    {
        return ReelRecipe::fromArray($this->safe()->except('name') + ['from' => ReelFrom::Days->value, 'what' => [$day->ulid]]);
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['what.*' => 'Choose what the reel is made of.', 'device.required_if' => 'Choose the camera.'];
    }
}
