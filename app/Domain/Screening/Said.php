<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Sequences\SequenceStore;
use App\Models\StoredSequence;
use App\Models\Take;

/** What was said of the takes of a reel, by whom: take by take as the reel shows them, and summed up by person. */
final readonly class Said
{
    public function __construct(private SequenceStore $store) {}

    /** @return list<Take> in the reel's order, with what people said of each */
    public function takes(StoredSequence $reel): array
    {
        $order = BuildReel::order($this->store->read($reel));
        $takes = Take::query()
            ->where('production_id', $reel->production_id)
            ->whereIn('ulid', $order)
            ->with([
                'screeningNotes' => static fn($query) => $query->orderBy('id'),
                'screeningNotes.user',
                'screeningNotes.clip',
                'ratings.user',
            ])
            ->get()
            ->keyBy('ulid');

        return array_values(array_filter(array_map(static fn(string $take): ?Take => $takes[$take] ?? null, $order)));
    }

    /**
     * @param  list<Take>  $takes
     * @return list<array{name: string, notes: int, rated: int, stars: float|null}> who said most first; stars on the mean
     */
    public static function people(array $takes): array
    {
        $people = [];
        foreach ($takes as $take) {
            foreach ($take->screeningNotes as $note) {
                $name = $note->user->name ?? 'Somebody';
                $people[$name] = ['notes' => ($people[$name]['notes'] ?? 0) + 1, 'stars' => $people[$name]['stars'] ?? []];
            }
            foreach ($take->ratings as $rating) {
                $name = $rating->user->name;
                $people[$name] = ['notes' => $people[$name]['notes'] ?? 0, 'stars' => [...$people[$name]['stars'] ?? [], $rating->stars]];
            }
        }
        $list = [];
        foreach ($people as $name => ['notes' => $notes, 'stars' => $stars]) {
            $list[] = [
                'name' => (string) $name,
                'notes' => $notes,
                'rated' => count($stars),
                'stars' => $stars === [] ? null : round(array_sum($stars) / count($stars), 1),
            ];
        }
        usort(
            $list,
            static fn(array $x, array $y): int => [$y['notes'], $y['rated'], $x['name']] <=> [$x['notes'], $x['rated'], $y['name']],
        );

        return $list;
    }
}
