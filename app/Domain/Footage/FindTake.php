<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Take;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateOrder;
use Illuminate\Database\Eloquent\Collection;

/** The take of a day that a slate names; made when it is the first to name it. */
final class FindTake
{
    public function __invoke(ShootDay $day, Slate $slate, ChangeLog $log): Take
    {
        $wanted = Take::query()
            ->where('shoot_day_id', $day->id)
            ->where('setup', $slate->setup)
            ->where('take', $slate->take)
            ->where('part', $slate->part);
        $take = (clone $wanted)->first();
        if ($take !== null) {
            return $take->setRelation('production', $day->production);
        }
        // Two people may name it first at the same moment; the second finds what the first has made.
        ShootDay::query()->whereKey($day->id)->lockForUpdate()->first();
        $take = $wanted->lockForUpdate()->first();
        if ($take !== null) {
            return $take->setRelation('production', $day->production);
        }
        // What happens in a setup is the same in each of its takes, so a new take begins with its neighbour's words.
        $neighbour = Take::query()
            ->where('shoot_day_id', $day->id)
            ->where('setup', $slate->setup)
            ->where('description', '!=', '')
            ->orderByDesc('take')
            ->first();
        // A running number says no scene; its setup's other takes do, on this day or another.
        $scene =
            $slate->scene ??
            ($neighbour->scene ??
                (Take::query()->where('production_id', $day->production_id)->where('setup', $slate->setup)->value('scene') ??
                    $slate->setup));
        $take = new Take([
            'production_id' => $day->production_id,
            'shoot_day_id' => $day->id,
            'scene' => $scene,
            'setup' => $slate->setup,
            'take' => $slate->take,
            'part' => $slate->part,
            'sort_key' => SlateOrder::of($day->production->slate_style, $scene, $slate->setup, $slate->take, $slate->part),
            'description' => $neighbour->description ?? '',
            'size' => $neighbour->size ?? '',
            'status' => TakeStatus::None->value,
            'keywords' => '',
            'is_mos' => false,
            'is_tail_slate' => false,
            'is_wild' => false,
            'is_guide_only' => false,
            'is_pickup' => $slate->isPickup,
            'is_false_start' => false,
            'name' => '',
        ]);
        TakeFacts::mark($take, array_keys(array_filter(['description' => $take->description, 'size' => $take->size])), 'carried');
        $log->save($take);
        $take->setRelation('saidFacts', new Collection())->setRelation('production', $day->production);

        return $take;
    }

    /** What the recorder typed beside the slate: circled, no good and a note; a person's word and script notes stand above it. */
    public static function recorderMarks(Take $take, Clip $clip, ChangeLog $log): void
    {
        $ixml = $clip->facts['ixml'] ?? null;
        if ($ixml === null) {
            return;
        }
        $said = match (true) {
            ($ixml['circled'] ?? false) === true => ['status' => TakeStatus::Circled->value],
            ($ixml['no_good'] ?? false) === true => ['status' => TakeStatus::NoGood->value],
            default => [],
        };
        if (trim((string) ($ixml['note'] ?? '')) !== '') {
            $said['notes'] = trim((string) $ixml['note']);
        }
        // By what stands there now: a person may have marked it meanwhile.
        $take = Take::query()->lockForUpdate()->findOrFail($take->id)->setRelation('production', $take->production);
        TakeFacts::say($take, 'ixml', $clip->name, $said, $log);
        $log->save($take);
    }
}
