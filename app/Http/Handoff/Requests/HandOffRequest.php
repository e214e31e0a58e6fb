<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use App\Domain\Bins\BinKey;
use App\Domain\Handoff\PackageChoice;
use App\Models\Production;
use App\Support\Problem;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** What goes to the editing team and how; and why open points go along. */
final class HandOffRequest extends FormRequest
{
    private const MOST = 2000;

    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'days' => ['present', 'array', 'max:' . self::MOST],
            'days.*' => ['string', 'size:26'],
            'bins' => ['present', 'array', 'max:' . self::MOST],
            'bins.*' => ['string', 'max:' . BinKey::LONGEST],
            'sequences' => ['sometimes', 'array', 'max:' . self::MOST],
            'sequences.*' => ['string', 'size:26'],
            'takes' => ['sometimes', 'array', 'max:' . self::MOST],
            'takes.*' => ['string', 'size:26'],
            'since' => ['sometimes', 'boolean'],
            'picture' => ['sometimes', Rule::in(PackageChoice::PICTURES)],
            'sound' => ['sometimes', Rule::in(PackageChoice::SOUNDS)],
            'mixes' => ['sometimes', 'boolean'],
            'lists' => ['sometimes', 'array'],
            'lists.*' => [Rule::in(PackageChoice::LISTS)],
            'columns' => ['sometimes', 'nullable', 'array', 'max:200'],
            'columns.*' => ['string', 'max:120'],
            'folders' => ['sometimes', Rule::in(PackageChoice::FOLDERS)],
            'pattern' => ['sometimes', 'nullable', 'string', 'max:200'],
            'waived' => ['sometimes', 'array', 'max:' . self::MOST],
            'waived.*.day' => ['required', 'string', 'size:26'],
            'waived.*.point' => ['required', 'string', 'max:200'],
            'waived.*.reason' => ['required', 'string', 'max:300'],
        ];
    }

    /** @throws Problem if a day is not the production's */
    public function choice(Production $production): PackageChoice
    {
        $wanted = $this->safe()->except('waived');
        if ($production->days()->whereIn('ulid', $wanted['days'])->count() !== count(array_unique($wanted['days']))) {
            throw Problem::missing('One of those days', 'Load the page again.');
        }

        return PackageChoice::fromArray($wanted);
    }

    /** @return list<array{day: string, point: string, reason: string}> */
    public function reasons(): array
    {
        return array_values($this->validated('waived') ?? []);
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['waived.*.reason' => 'Say in at most 300 letters why it goes along.'];
    }
}
