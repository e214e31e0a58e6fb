<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Bins\BinRows;
use App\Domain\Tasks\StartTask;
use App\Models\Clip;
use App\Models\Handoff;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Custody\PathTemplate;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Begins a hand-off of days and bins; the package is written by a worker. */
final class MakeHandoff
{
    public function __construct(private readonly StartTask $start, private readonly BinRows $bins) {}

    /**
     * @param  Collection<int, ShootDay>  $days
     * @param  list<string>  $binKeys
     *
     * @throws Problem if nothing that is chosen holds a clip
     */
    public function __invoke(Production $production, User $user, Collection $days, array $binKeys): Handoff
    {
        $clips = self::clips($production, $days->pluck('id')->all(), $binKeys, $this->bins);
        if ($clips->isEmpty()) {
            throw Problem::refused('handoff.empty', 'Nothing that you chose holds a clip.', 'Choose a day or a bin with clips in it.');
        }
        $title = implode(', ', [
            ...$days->map(static fn(ShootDay $day): string => 'Day ' . $day->number)->all(),
            ...array_map(static fn(string $key): string => str_contains($key, ':') ? str_replace(':', ' ', $key) : 'bin', $binKeys),
        ]);
        $handoff = DB::transaction(function () use ($production, $user, $days, $binKeys, $title): Handoff {
            Production::query()->whereKey($production->id)->lockForUpdate()->first(); // two hand-offs at once get two numbers
            $number = (int) Handoff::query()->where('production_id', $production->id)->max('number') + 1;

            $handoff = Handoff::query()->create([
                'production_id' => $production->id,
                'user_id' => $user->id,
                'number' => $number,
                'title' => $title,
                'chosen' => ['days' => $days->pluck('ulid')->all(), 'bins' => $binKeys],
                'folder' => sprintf('%s/%03d %s', PathTemplate::plain($production->name), $number, PathTemplate::plain($title)),
                'state' => 'packing',
            ]);
            ($this->start)(
                $production,
                $user,
                'handoff',
                sprintf('Hand-off %d', $handoff->number),
                ['handoff' => $handoff->id],
                "handoff.$handoff->id",
            );

            return $handoff;
        });
        Live::tell($production->id, Topic::Handoffs, ['handoff' => $handoff->ulid]);

        return $handoff;
    }

    /**
     * @param  list<int>  $dayIds
     * @param  list<string>  $binKeys
     * @return Collection<int, Clip>
     */
    public static function clips(Production $production, array $dayIds, array $binKeys, BinRows $bins): Collection
    {
        $fromBins = array_merge([], ...array_map(static fn(string $key): array => $bins->clipIds($production, $key), $binKeys));

        return Clip::query()
            ->whereNull('clips.away_at')
            ->with(['card.copies', 'device.look', 'look', 'take', 'parts.take.screeningNotes', 'placement', 'day'])
            ->where('production_id', $production->id)
            ->whereIn('kind', ['picture', 'sound', 'still'])
            ->where(
                static fn($query) => $query
                    ->where(static fn($own) => $own->whereIn('shoot_day_id', $dayIds)->whereNull('import_kind'))
                    ->orWhereIntegerInRaw('id', $fromBins),
            )
            ->orderBy('id')
            ->get();
    }
}
