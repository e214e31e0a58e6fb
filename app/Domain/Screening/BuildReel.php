<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Sequences\SequenceStore;
use App\Models\SequenceKind;
use App\Models\SequenceStep;
use App\Models\ShootDay;
use App\Models\StoredSequence;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;

/** Builds a review reel of a day by a recipe that it keeps, and builds it again when what it was made of has changed. */
final class BuildReel
{
    /** Takes that a sentence names one by one. */
    private const NAMED = 6;

    public function __construct(private readonly SequenceStore $store) {}

    /** @throws Problem if no take of the day has a picture */
    public function __invoke(ShootDay $day, User $user, string $name, bool $circledOnly): StoredSequence
    {
        $recipe = new ReelRecipe($day, $circledOnly);
        $chosen = $recipe->chosen();
        if ($chosen === []) {
            throw Problem::refused(
                'reel.empty',
                $circledOnly ? 'No circled take of this day has a picture.' : 'No take of this day has a picture.',
                $circledOnly ? 'Circle some takes, or build the reel of all takes.' : 'Offload the cards and read the slates first.',
            );
        }

        return $this->store->create(
            $day->production,
            $user,
            SequenceKind::Reel,
            $recipe->sequence($name, $chosen),
            $day,
            $recipe->toArray(),
            $recipe->fingerprint($chosen),
            "Build the reel $name",
        );
    }

    /**
     * Carries out a reel's recipe again where takes, their pictures or their heads have changed since; what somebody cut by
     * hand is kept as a version first.
     *
     * @return string|null what changed, as a sentence; null when nothing did
     */
    public function again(StoredSequence $reel): ?string
    {
        if ($reel->day === null || $reel->recipe === null) {
            return null;
        }
        $recipe = ReelRecipe::of($reel->day, $reel->recipe);
        $chosen = $recipe->chosen();
        $fingerprint = $recipe->fingerprint($chosen);
        if ($reel->made_of !== null && hash_equals($reel->made_of, $fingerprint)) {
            return null;
        }
        $was = $this->store->read($reel);
        $is = $recipe->sequence($reel->name, $chosen);
        $said = self::difference($was, $is);
        if ($this->isSomebodys($reel)) {
            $this->store->keepVersion($reel, null, 'Before it was brought up to date');
        }
        $step = $this->store->replace($reel, null, $is, $said);
        $reel->refresh();
        $reel->timestamps = false;
        $reel->update(['made_of' => $fingerprint]);
        $this->store->settle($reel->id);

        return $step === null ? null : $said;
    }

    /** Whether a person was the last to change it; the recipe would take that work along. */
    private function isSomebodys(StoredSequence $reel): bool
    {
        return SequenceStep::query()
            ->where('sequence_id', $reel->id)
            ->latest('number')
            ->first(['user_id'])?->user_id !== null;
    }

    /** What of the takes came in, went out, or runs otherwise than before. */
    private static function difference(Sequence $was, Sequence $is): string
    {
        [$old, $new] = [self::byTake($was), self::byTake($is)];
        $other = [];
        foreach (array_intersect_key($new, $old) as $take => $one) {
            if ($one['pieces'] != $old[$take]['pieces']) {
                $other[] = $one['label'];
            }
        }
        $in = array_column(array_diff_key($new, $old), 'label');
        $out = array_column(array_diff_key($old, $new), 'label');
        $said = [];
        foreach (['came in' => $in, 'went out' => $out, 'changed in length or picture' => $other] as $what => $labels) {
            if ($labels !== []) {
                $said[] = self::listed($labels) . ' ' . $what;
            }
        }

        return $said === [] ? 'The takes stand in another order.' : implode('; ', $said) . '.';
    }

    /** @return array<string, array{label: string, pieces: list<array{string, int, int}>}> */
    private static function byTake(Sequence $sequence): array
    {
        $takes = [];
        foreach ($sequence->tracks[0]->items ?? [] as $item) {
            $take = (string) ($item->metadata['take'] ?? $item->source->id);
            $takes[$take]['label'] = self::slate($item);
            $takes[$take]['pieces'][] = [$item->source->id, $item->sourceStartTicks, $item->durationTicks];
        }

        return $takes;
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
