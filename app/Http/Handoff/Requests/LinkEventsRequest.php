<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use App\Models\Clip;
use App\Models\Production;
use App\Support\Problem;
use Illuminate\Foundation\Http\FormRequest;

/** Which clips some events of a list mean. */
final class LinkEventsRequest extends FormRequest
{
    private const MOST = 2000;

    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'links' => ['required', 'array', 'min:1', 'max:' . self::MOST],
            'links.*.track' => ['required', 'integer', 'min:0'],
            'links.*.index' => ['required', 'integer', 'min:0'],
            'links.*.clip' => ['required', 'string', 'size:26'],
            'links.*.was' => ['sometimes', 'nullable', 'string', 'size:26'],
        ];
    }

    /**
     * @return list<array{track: int, index: int, clip: Clip, was: string|null}>
     *
     * @throws Problem if a clip is not the production's
     */
    public function pairs(Production $production): array
    {
        $links = $this->validated('links');
        $clips = Clip::query()
            ->where('production_id', $production->id)
            ->whereIn('ulid', array_column($links, 'clip'))
            ->with(['card', 'production'])
            ->get()
            ->keyBy('ulid');

        return array_map(
            static fn(array $one): array => [
                'track' => (int) $one['track'],
                'index' => (int) $one['index'],
                'was' => $one['was'] ?? null,
                'clip' => $clips[$one['clip']] ?? throw Problem::missing('That clip', 'Load the page again.'),
            ],
            array_values($links),
        );
    }
}
