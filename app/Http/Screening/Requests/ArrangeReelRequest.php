<?php

declare(strict_types=1);

namespace App\Http\Screening\Requests;

use App\Domain\Screening\ReelRecipe;
use Illuminate\Foundation\Http\FormRequest;

/** The takes of a reel as the page saw them, and as they shall stand; by their ULIDs. */
final class ArrangeReelRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'was' => ['present', 'array', 'max:' . ReelRecipe::MOST],
            'was.*' => ['string', 'size:26'],
            'now' => ['required', 'array', 'min:1', 'max:' . ReelRecipe::MOST],
            'now.*' => ['string', 'size:26'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['now.required' => 'A reel shows one take at least.'];
    }
}
