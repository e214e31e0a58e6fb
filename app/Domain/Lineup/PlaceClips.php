<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Cards\ClipMedia;
use App\Models\Clip;
use App\Models\ClockOffset;
use App\Models\Placement;
use App\Models\ShootDay;
use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\LineupResult;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Finds the place of every clip of a day and keeps it, with the way, the evidence and what was learned of the clocks.
 * A locked placement stays where a person put it.
 */
final class PlaceClips
{
    /**
     * @param  list<string>  $ways
     * @param  callable(int, int, string): void  $progress
     * @return array{placed: int, sure: int, strays: int}
     */
    public function __invoke(ShootDay $day, array $ways, callable $progress): array
    {
        $clips = Clip::query()->with(['device', 'placement'])->where('shoot_day_id', $day->id)->whereIn('kind', ['picture', 'sound'])
            ->whereNull('import_kind')->whereNotNull('duration_ticks')->whereNotNull('device_id')->orderByRaw("kind = 'picture'")->orderBy('start_ticks')->orderBy('id')->get()->keyBy('ulid');
        $anchor = $clips->first(static fn (Clip $clip): bool => $clip->isSound()) ?? $clips->first();
        if ($anchor === null) {
            return ['placed' => 0, 'sure' => 0, 'strays' => 0];
        }
        $base = (int) ($anchor->start_ticks ?? 0);
        $corrections = new Corrections($day);
        $result = Lineup::of(
            $clips->map(fn (Clip $clip): LineupClip => $this->clip($clip, $base, $corrections->of($clip)))->values()->all(),
            array_map(Way::parse(...), $ways),
            static fn (string $id, int $done, int $total) => $progress($done, $total, $clips[$id]->name),
        );
        DB::transaction(fn () => $this->save($day, $clips, $result, $base, $corrections));

        return [
            'placed' => count($result->placements),
            'sure' => count(array_filter($result->placements, static fn ($placement): bool => $placement->sure)),
            'strays' => count($result->strays),
        ];
    }

    private function clip(Clip $clip, int $base, int $correction): LineupClip
    {
        $guide = ClipMedia::folder($clip).'/guide';
        $locked = $clip->placement?->locked_at !== null && $clip->placement->start_ticks !== null ? $clip->placement->start_ticks - $base : null;
        $recorded = $clip->recorded_at !== null && strlen($clip->recorded_at) > 10 ? strtotime($clip->recorded_at) : false;

        return new LineupClip(
            $clip->ulid, (string) $clip->device->letter, $clip->isSound(), (int) $clip->duration_ticks,
            $clip->start_ticks === null ? null : $clip->start_ticks + $correction,
            $recorded === false ? null : $recorded * Ticks::PER_SECOND,
            is_file($guide) ? static fn (): GuideTrack => GuideTrack::ofFile($guide) : null,
            $locked,
        );
    }

    /** @param  Collection<string, Clip>  $clips */
    private function save(ShootDay $day, Collection $clips, LineupResult $result, int $base, Corrections $corrections): void
    {
        foreach ($result->placements as $place) {
            $clip = $clips[$place->id];
            $isLocked = $clip->placement?->locked_at !== null;
            Placement::query()->updateOrCreate(['clip_id' => $clip->id], [
                'shoot_day_id' => $day->id, 'group' => $place->group, 'start_ticks' => $base + $place->startTicks,
                'way' => $isLocked ? $clip->placement->way : $place->way->value, 'confidence' => $place->confidence,
                'is_sure' => $place->sure, 'drift_ppm' => $place->driftPpm, 'evidence' => $place->evidence, 'stray_reason' => null,
            ]);
        }
        foreach ($result->strays as $id => $reason) {
            Placement::query()->updateOrCreate(['clip_id' => $clips[$id]->id], [
                'shoot_day_id' => $day->id, 'group' => null, 'start_ticks' => null, 'way' => null, 'confidence' => null, 'is_sure' => false,
                'drift_ppm' => null, 'evidence' => null, 'stray_reason' => mb_substr($reason, 0, 300), 'locked_at' => null,
            ]);
        }
        foreach ($day->production->devices as $device) {
            $learned = $result->deviceOffsets[$device->letter] ?? null;
            if ($learned !== null && $learned['votes'] > 0) {
                $row = ClockOffset::query()->firstOrNew(['device_id' => $device->id, 'shoot_day_id' => $day->id]);
                // Learned against times that were corrected already, so the correction belongs to what was learned.
                $row->fill(['learned_ticks' => $learned['offset_ticks'] + $corrections->ofDevice($device->id), 'votes' => $learned['votes']])->save();
            }
        }
    }
}
