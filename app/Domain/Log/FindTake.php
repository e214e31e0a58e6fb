<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Take;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateOrder;

/** The take of a day that a slate names; made when it is the first to name it. */
final class FindTake
{
    public function __invoke(ShootDay $day, Slate $slate, ChangeLog $log): Take
    {
        $take = Take::query()->where('shoot_day_id', $day->id)->where('setup', $slate->setup)->where('take', $slate->take)->first();
        if ($take !== null) {
            return $take;
        }
        // What happens in a setup is the same in each of its takes, so a new take begins with its neighbour's words.
        $neighbour = Take::query()->where('shoot_day_id', $day->id)->where('setup', $slate->setup)->where('description', '!=', '')->orderByDesc('take')->first();
        $take = new Take([
            'production_id' => $day->production_id, 'shoot_day_id' => $day->id, 'scene' => $slate->scene ?? $slate->setup, 'setup' => $slate->setup,
            'take' => $slate->take, 'sort_key' => SlateOrder::key($slate->setup, $slate->take),
            'description' => $neighbour->description ?? '', 'size' => $neighbour->size ?? '', 'status' => 'none', 'keywords' => '',
            'is_mos' => false, 'is_tail_slate' => false, 'is_wild' => false, 'is_guide_only' => false,
        ]);
        $log->save($take);

        return $take;
    }

    /** What the recorder typed beside the slate: circled, no good and a note; never over what a person has set. */
    public static function recorderMarks(Take $take, Clip $clip, ChangeLog $log): void
    {
        $ixml = $clip->facts['ixml'] ?? null;
        if ($ixml === null) {
            return;
        }
        if ($take->status === 'none') {
            $take->status = ($ixml['circled'] ?? false) === true ? 'circled' : (($ixml['no_good'] ?? false) === true ? 'ng' : 'none');
        }
        if (($take->notes ?? '') === '' && ($ixml['note'] ?? null) !== null) {
            $take->notes = mb_substr((string) $ixml['note'], 0, 4000);
        }
        $log->save($take);
    }
}
