<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Sequences\SequenceStore;
use App\Models\SequenceKind;
use App\Models\SequenceStep;
use App\Models\ShootDay;
use App\Models\StoredSequence;
use App\Models\Take;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Illuminate\Support\Facades\DB;

/**
 * Builds a review reel by a recipe that it keeps, lets people arrange it by hand, and builds it again when what it was made of has
 * changed. What the recipe chose last is kept beside it (`built_takes`): a take of that list that is not in the reel was left out by
 * somebody, and where the two stand in another order somebody arranged them; both stay so.
 */
final class BuildReel
{
    /** Takes that a sentence names one by one. */
    private const NAMED = 6;

    public function __construct(private readonly SequenceStore $store, private readonly ReelTakes $takes) {}

    /** @throws Problem if nothing that the recipe chooses has a picture */
    public function __invoke(ShootDay $day, User $user, string $name, ReelRecipe $recipe): StoredSequence
    {
        $production = $day->production;
        $chosen = $this->takes->of($production, $recipe);
        if ($chosen === []) {
            throw Problem::refused(
                'reel.empty',
                $recipe->circledOnly ? 'No circled take among them has a picture.' : 'No take among them has a picture.',
                $recipe->circledOnly
                    ? 'Circle some takes, or build the reel of all takes.'
                    : 'Offload the cards and read the slates first.',
            );
        }
        $items = array_merge(...array_map(fn(array $one): array => $this->takes->items($production, $one), $chosen));

        return DB::transaction(function () use ($production, $user, $name, $items, $day, $recipe, $chosen): StoredSequence {
            $reel = $this->store->create(
                $production,
                $user,
                SequenceKind::Reel,
                $this->takes->sequence($name, $production->rate(), $items),
                $day,
                $recipe->toArray(),
                $this->takes->fingerprint($production, $recipe, $chosen),
                "Build the reel $name",
            );
            self::keepBuilt($reel, $chosen);

            return $reel;
        });
    }

    /**
     * Carries out a reel's recipe again where takes, their pictures or their slates have changed since; what somebody cut by
     * hand is kept as a version first, and the order that somebody gave it stays.
     *
     * @return string|null what changed, as a sentence; null when nothing did
     */
    public function again(StoredSequence $reel): ?string
    {
        $said = $this->store->alone($reel, $this->cookAgain(...));
        $reel->refresh();

        return $said;
    }

    private function cookAgain(StoredSequence $reel): ?string
    {
        $recipe = ReelRecipe::of($reel);
        if ($recipe === null) {
            return null;
        }
        $production = $reel->production;
        $chosen = $this->takes->of($production, $recipe);
        $fingerprint = $this->takes->fingerprint($production, $recipe, $chosen);
        if ($reel->made_of !== null && hash_equals($reel->made_of, $fingerprint)) {
            return null;
        }
        $was = $this->store->read($reel);
        $fresh = [];
        foreach ($chosen as $one) {
            $fresh[$one['take']->ulid] = $this->takes->items($production, $one);
        }
        $order = $this->arranged(self::order($was), $reel->built_takes ?? self::order($was), array_keys($fresh));
        $is = $this->takes->sequence(
            $reel->name,
            $was->rate,
            array_merge(...array_map(static fn(string $take): array => $fresh[$take], $order)),
        );
        $said = self::difference($was, $is);
        if ($this->isSomebodys($reel)) {
            $this->store->keepVersion($reel, null, 'Before it was brought up to date');
        }
        $step = $this->store->replace($reel, null, $is, $said);
        $reel->refresh();
        $reel->made_of = $fingerprint;
        self::keepBuilt($reel, $chosen);
        $this->store->settle($reel->id);

        return $step === null ? null : $said;
    }

    /**
     * Puts a reel's takes in another order, leaves some out, or takes some in again that were left out.
     *
     * @param  list<string>  $was  ULIDs of takes as the page saw them
     * @param  list<string>  $now  as they shall stand
     *
     * @throws Problem if it is arranged otherwise by now, or a take is none that its recipe chooses
     */
    public function arrange(StoredSequence $reel, User $user, array $was, array $now): void
    {
        $this->store->alone($reel, fn(StoredSequence $reel) => $this->putInOrder($reel, $user, $was, $now));
    }

    /**
     * @param  list<string>  $was
     * @param  list<string>  $now
     */
    private function putInOrder(StoredSequence $reel, User $user, array $was, array $now): void
    {
        $cut = $this->store->read($reel);
        if (self::order($cut) !== $was) {
            throw Problem::conflict(
                'reel.arranged',
                'Somebody arranged this reel meanwhile.',
                'Look at it as it is now, then do it again.',
            );
        }
        $groups = self::groups($cut);
        $recipe = ReelRecipe::of($reel);
        $missing = array_diff($now, $was);
        foreach ($missing === [] || $recipe === null ? [] : $this->takes->of($reel->production, $recipe) as $one) {
            $groups[$one['take']->ulid] ??= $this->takes->items($reel->production, $one);
        }
        if (count(array_unique($now)) !== count($now) || array_diff($now, array_map(strval(...), array_keys($groups))) !== []) {
            throw Problem::refused('reel.takes', 'One of those takes is not of this reel any more.', 'Open the reel again.');
        }
        $items = array_merge(...array_map(static fn(string $take): array => $groups[$take], $now));
        $this->store->replace(
            $reel,
            $user,
            $this->takes->sequence($reel->name, $cut->rate, $items),
            self::said($reel, $was, $now, $groups),
        );
    }

    /**
     * The takes that the recipe chose last and somebody left out.
     *
     * @return list<Take> in the recipe's order
     */
    public function leftOut(StoredSequence $reel, Sequence $cut): array
    {
        $out = array_values(array_diff($reel->built_takes ?? [], self::order($cut)));
        $takes = Take::query()->where('production_id', $reel->production_id)->whereIn('ulid', $out)->get()->keyBy('ulid');

        return array_values(array_filter(array_map(static fn(string $ulid): ?Take => $takes[$ulid] ?? null, $out)));
    }

    /** @param  list<array{take: Take}>  $chosen */
    private static function keepBuilt(StoredSequence $reel, array $chosen): void
    {
        // Nothing of it changes for those who look at it.
        $reel->timestamps = false;
        $reel->update(['built_takes' => array_map(static fn(array $one): string => $one['take']->ulid, $chosen)]);
        $reel->timestamps = true;
    }

    /**
     * In which order the takes stand when the recipe is carried out again: as the recipe says, unless somebody arranged them; new ones then
     * come after the take that they follow in the recipe.
     *
     * @param  list<string>  $shown  as the reel stands
     * @param  list<string>  $built  as the recipe had them last
     * @param  list<string>  $chosen  as the recipe has them now
     * @return list<string>
     */
    private function arranged(array $shown, array $built, array $chosen): array
    {
        $leftOut = array_diff($built, $shown);
        $wanted = array_values(array_diff($chosen, $leftOut));
        $both = array_values(array_intersect($built, $shown));
        if ($both === array_values(array_intersect($shown, $built))) {
            return $wanted;
        }
        $order = array_values(array_intersect($shown, $wanted));
        foreach ($wanted as $number => $take) {
            if (!in_array($take, $order, true)) {
                $before = $number === 0 ? false : array_search($wanted[$number - 1], $order, true);
                array_splice($order, $before === false ? 0 : $before + 1, 0, [$take]);
            }
        }

        return $order;
    }

    /** Whether a person was the last to change it; the recipe would take that work along. */
    private function isSomebodys(StoredSequence $reel): bool
    {
        return SequenceStep::query()
            ->where('sequence_id', $reel->id)
            ->latest('number')
            ->first(['user_id'])?->user_id !== null;
    }

    /** @return list<string> the takes of a reel, each once, as they stand */
    public static function order(Sequence $cut): array
    {
        return array_map(strval(...), array_keys(self::groups($cut)));
    }

    /** @return array<string, non-empty-list<Item>> by take */
    private static function groups(Sequence $cut): array
    {
        $groups = [];
        foreach ($cut->tracks[0]->items ?? [] as $item) {
            $groups[(string) ($item->metadata['take'] ?? $item->source->id)][] = $item;
        }

        return $groups;
    }

    /** What of the takes came in, went out, or runs otherwise than before. */
    private static function difference(Sequence $was, Sequence $is): string
    {
        [$old, $new] = [self::groups($was), self::groups($is)];
        $pieces = static fn(array $items): array => array_map(
            static fn(Item $item): array => [$item->source->id, $item->sourceStartTicks, $item->durationTicks],
            $items,
        );
        $labels = static fn(array $groups): array => array_values(
            array_map(static fn(array $items): string => self::slate($items[0]), $groups),
        );
        $other = array_filter(
            array_intersect_key($new, $old),
            static fn(array $items, string $take): bool => $pieces($items) !== $pieces($old[$take]),
            ARRAY_FILTER_USE_BOTH,
        );
        $said = [];
        foreach (
            [
                'came in' => array_diff_key($new, $old),
                'went out' => array_diff_key($old, $new),
                'changed in length or picture' => $other,
            ]
            as $what => $groups
        ) {
            if ($groups !== []) {
                $said[] = self::listed($labels($groups)) . ' ' . $what;
            }
        }

        return $said === [] ? 'The takes stand in another order.' : implode('; ', $said) . '.';
    }

    /**
     * @param  list<string>  $was
     * @param  list<string>  $now
     * @param  array<string, non-empty-list<Item>>  $groups
     */
    private static function said(StoredSequence $reel, array $was, array $now, array $groups): string
    {
        $labels = static fn(array $takes): string => self::listed(
            array_map(static fn(string $take): string => self::slate($groups[$take][0]), array_values($takes)),
        );
        $out = array_diff($was, $now);
        $in = array_diff($now, $was);

        return match (true) {
            $out !== [] => "Leave {$labels($out)} out of $reel->name",
            $in !== [] => "Take {$labels($in)} into $reel->name again",
            default => "Arrange $reel->name",
        };
    }

    /** An item of a reel is named by its slate and its clip. */
    private static function slate(Item $item): string
    {
        return explode(' ', $item->name, 2)[0];
    }

    /** @param  list<string>  $labels */
    private static function listed(array $labels): string
    {
        $more = count($labels) - self::NAMED;

        return implode(', ', array_slice($labels, 0, self::NAMED)) . ($more > 0 ? " and $more more" : '');
    }
}
