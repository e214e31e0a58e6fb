<?php

declare(strict_types=1);

namespace App\Http\Log\Requests;

use App\Domain\Footage\GiveNames;
use App\Models\Production;
use App\Support\Problem;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** What is named, and by which pattern. */
final class NamingRequest extends FormRequest
{
    /** Chosen one by one; a whole day is said by its own name and has no limit. */
    private const CHOSEN = 5000;

    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'what' => ['required', Rule::in(['clips', 'takes', 'subclips'])],
            'ulids' => ['required_without:day', 'array', 'between:1,' . self::CHOSEN],
            'ulids.*' => ['string', 'size:26'],
            'day' => ['required_without:ulids', 'string', 'size:26'],
            'kind' => ['sometimes', Rule::in(['all', 'picture', 'sound'])],
            'only_bad' => ['sometimes', 'boolean'],
            'pattern' => ['required', 'string', 'max:160'],
            'start' => ['sometimes', 'integer', 'between:0,99999'],
            'step' => ['sometimes', 'integer', 'between:1,1000'],
        ];
    }

    /** @return array{0: 'clips'|'takes'|'subclips', 1: list<string>, 2: string, 3: int, 4: int} what, which, pattern, first number, step */
    public function naming(Production $production): array
    {
        $input = $this->validated();
        $ulids = $input['ulids'] ?? null;
        if ($ulids === null) {
            $day = $production->days()->where('ulid', $input['day'])->first() ?? throw Problem::missing('That day', 'Load the page again.');
            $ulids = GiveNames::ofDay($day, $input['what'], $input['kind'] ?? 'all');
        }

        return [$input['what'], array_values($ulids), $input['pattern'], (int) ($input['start'] ?? 1), (int) ($input['step'] ?? 1)];
    }
}
