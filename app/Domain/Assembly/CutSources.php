<?php

declare(strict_types=1);

namespace App\Domain\Assembly;

use App\Domain\Sequences\SequenceStore;
use App\Models\Clip;
use App\Models\StoredSequence;
use App\Models\Take;
use Cartella\Core\Time\FrameRate;

/** The clips and takes that the items of a cut are of, by which a page draws them. */
final readonly class CutSources
{
    public function __construct(private SequenceStore $store) {}

    /** @return array{rate: FrameRate, clips: list<Clip>, takes: list<Take>} */
    public function of(StoredSequence $stored): array
    {
        $clips = $takes = [];
        $sequence = $this->store->read($stored);
        foreach ($sequence->tracks as $track) {
            foreach ($track->items as $item) {
                $clips[$item->source->id] = true;
                $takes[(string) ($item->metadata['take'] ?? '')] = true;
            }
        }

        return [
            'rate' => $sequence->rate,
            'clips' => Clip::query()
                ->where('production_id', $stored->production_id)
                ->whereIn('ulid', array_map(strval(...), array_keys($clips)))
                ->with(['device.look', 'look', 'day', 'production'])
                ->get()
                ->all(),
            'takes' => Take::query()
                ->where('production_id', $stored->production_id)
                ->whereIn('ulid', array_map(strval(...), array_keys($takes)))
                ->get()
                ->all(),
        ];
    }
}
