<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Tasks\StartTask;
use App\Models\Handoff;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Custody\PathTemplate;
use Illuminate\Support\Facades\DB;

/** Begins a hand-off of what was chosen; the package is written by a worker. Several can be under way at once. */
final class MakeHandoff
{
    private const LONGEST_TITLE = 120;

    public function __construct(private readonly StartTask $start, private readonly PackingPlans $plans, private readonly Gate $gate) {}

    /**
     * @param  list<array{day: string, point: string, reason: string}>  $reasons  why open points go along
     *
     * @throws Problem if nothing that is chosen holds a clip, or a point stands open without a reason
     */
    public function __invoke(Production $production, User $user, PackageChoice $choice, array $reasons): Handoff
    {
        $plan = $this->plans->of($production, $choice);
        if ($plan->clips->isEmpty()) {
            throw $choice->isSince && $plan->since !== null
                ? Problem::refused(
                    'handoff.nothing_new',
                    "Nothing is new or changed since no. $plan->since.",
                    'Choose days or bins to send them again.',
                )
                : Problem::refused('handoff.empty', 'Nothing that you chose holds a clip.', 'Choose a day or a bin with clips in it.');
        }
        $choice = $choice->waiving($this->gate->passed($plan, $user, $reasons));
        $title = self::title($plan);
        $handoff = DB::transaction(function () use ($production, $user, $choice, $title): Handoff {
            Production::query()->whereKey($production->id)->lockForUpdate()->first(); // two hand-offs at once get two numbers
            $number = (int) Handoff::query()->where('production_id', $production->id)->max('number') + 1;

            $handoff = Handoff::query()->create([
                'production_id' => $production->id,
                'user_id' => $user->id,
                'number' => $number,
                'title' => $title,
                'chosen' => $choice->toArray(),
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

    /** What goes, in a few words: its folder is called so. */
    private static function title(PackingPlan $plan): string
    {
        $choice = $plan->choice;
        if ($choice->isSince) {
            return $plan->since === null ? 'Everything' : "New since $plan->since";
        }
        $days = $plan->production->days()->whereIn('ulid', $choice->days)->orderBy('number')->pluck('number');
        $title = implode(', ', [
            ...$days->map(static fn(int $number): string => "Day $number")->all(),
            ...array_map(static fn(string $key): string => str_contains($key, ':') ? str_replace(':', ' ', $key) : 'bin', $choice->bins),
            ...array_values(
                array_map(
                    static fn(PackingItem $item): string => $item->name,
                    array_filter(
                        $plan->items,
                        static fn(PackingItem $item): bool => in_array($item->sequence?->ulid, $choice->sequences, true),
                    ),
                ),
            ),
            ...$choice->takes === [] ? [] : [count($choice->takes) === 1 ? '1 take' : count($choice->takes) . ' takes'],
        ]);

        return mb_strlen($title) > self::LONGEST_TITLE ? mb_substr($title, 0, self::LONGEST_TITLE - 1) . '…' : $title;
    }
}
