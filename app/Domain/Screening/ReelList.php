<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Bins\BinKey;
use App\Models\Bin;
use App\Models\ScreeningLink;
use App\Models\SequenceStep;
use App\Models\ShootDay;
use App\Models\StoredSequence;

/** The reels of a day, newest first, with a picture for each and what changed when they were built again last. */
final class ReelList
{
    /** Names that a sentence lists. */
    private const NAMED = 4;

    /**
     * @return list<array{reel: StoredSequence, first: string|null, again: SequenceStep|null, words: string, of: string, shows: string,
     *     links: int}>
     */
    public function of(ShootDay $day): array
    {
        // The content of each is long, and little of it is asked.
        $reels = $day
            ->reels()
            ->latest('id')
            ->selectRaw(
                'id, ulid, production_id, shoot_day_id, kind, name, recipe, items, running_ticks, created_at, ' .
                    // The second is how cuts were kept before.
                    "COALESCE(JSON_VALUE(content, '$.first'), JSON_VALUE(content, '$.sources[0].id')) AS first_clip",
            )
            ->get()
            ->each(static fn(StoredSequence $reel) => $reel->setRelation('day', $day));
        $again = SequenceStep::query()
            ->whereIn('sequence_id', $reels->modelKeys())
            ->whereNull('user_id')
            ->whereNull('takes_back')
            ->orderBy('number')
            ->get()
            ->keyBy('sequence_id');
        $links = ScreeningLink::query()
            ->whereIn('sequence_id', $reels->modelKeys())
            ->whereNull('revoked_at')
            ->where('expires_at', '>', now())
            ->groupBy('sequence_id')
            ->selectRaw('sequence_id, COUNT(*) AS open')
            ->pluck('open', 'sequence_id');

        $recipes = $reels->map(ReelRecipe::of(...))->filter();
        $names = $this->names($day, $recipes->all());

        return $reels
            ->map(static function (StoredSequence $reel) use ($again, $links, $names): array {
                $recipe = ReelRecipe::of($reel);

                return [
                    'reel' => $reel,
                    'first' => $reel->getAttribute('first_clip'),
                    'again' => $again[$reel->id] ?? null,
                    'words' => $recipe?->words() ?? 'by hand',
                    'of' => $recipe === null ? '' : self::source($recipe, $names),
                    'shows' => self::counted($reel->items, $recipe),
                    'links' => (int) ($links[$reel->id] ?? 0),
                ];
            })
            ->all();
    }

    /** What a reel is called that nobody gives a name. */
    public function nameFor(ShootDay $day, ReelRecipe $recipe): string
    {
        $of = ucfirst(self::source($recipe, $this->names($day, [$recipe])));

        return mb_substr($of . ', ' . ($recipe->circledOnly ? 'circled' : 'all takes'), 0, 120);
    }

    /** A take that is shown from each of its cameras in turn is as many pieces as cameras. */
    private static function counted(int $items, ?ReelRecipe $recipe): string
    {
        $one = $recipe?->angles === ReelAngles::Each ? 'piece' : 'take';

        return "$items $one" . ($items === 1 ? '' : 's');
    }

    /**
     * What the days and bins are called that recipes are made of, asked once for all of them.
     *
     * @param  array<ReelRecipe>  $recipes
     * @return array<string, int|string> by ULID: the numbers of days, lowest first, and the names of bins
     */
    private function names(ShootDay $day, array $recipes): array
    {
        $of = static fn(ReelFrom $from): array => array_merge(
            ...array_map(static fn(ReelRecipe $one): array => $one->from === $from ? $one->what : [], array_values($recipes)),
        );
        $others = array_diff($of(ReelFrom::Days), [$day->ulid]);
        $bins = $of(ReelFrom::Bin);
        $days = $others === [] ? [] : $day->production->days()->whereIn('ulid', $others)->pluck('number', 'ulid')->all();
        $days[$day->ulid] = $day->number;
        asort($days);

        return $days +
            ($bins === []
                ? []
                : Bin::query()->where('production_id', $day->production_id)->whereIn('ulid', $bins)->pluck('name', 'ulid')->all());
    }

    /**
     * Where the takes of a reel come from, in words.
     *
     * @param  array<string, int|string>  $names
     */
    private static function source(ReelRecipe $recipe, array $names): string
    {
        $listed = static fn(string $one, string $many, array $list): string => (count($list) === 1 ? $one : $many) .
            ' ' .
            implode(', ', array_slice($list, 0, self::NAMED)) .
            (count($list) > self::NAMED ? ' and ' . (count($list) - self::NAMED) . ' more' : '');

        return match ($recipe->from) {
            ReelFrom::Days => $listed('day', 'days', array_values(array_intersect_key($names, array_flip($recipe->what)))),
            ReelFrom::Scenes => $listed('scene', 'scenes', $recipe->what),
            ReelFrom::Bin => 'bin ' . self::bin($recipe->what[0] ?? '', $names),
            ReelFrom::Takes => count($recipe->what) . (count($recipe->what) === 1 ? ' chosen take' : ' chosen takes'),
        };
    }

    /** @param  array<string, int|string>  $names */
    private static function bin(string $key, array $names): string
    {
        $value = BinKey::parse($key)->value ?? '';

        return (string) ($names[$key] ?? ($value === '' ? $key : $value));
    }
}
