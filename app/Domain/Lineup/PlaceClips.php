<?php

declare(strict_types=1);

namespace App\Domain\Lineup;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Footage\MediaRecipe;
use App\Domain\Footage\Stores;
use App\Models\Clip;
use App\Models\ClipMark;
use App\Models\ClockOffset;
use App\Models\Placement;
use App\Models\ShootDay;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Lineup\Journal;
use Cartella\Core\Lineup\Lineup;
use Cartella\Core\Lineup\LineupClip;
use Cartella\Core\Lineup\LineupResult;
use Cartella\Core\Lineup\SoundMatch;
use Cartella\Core\Lineup\Way;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Sound\GuideTrack;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\TimeOfDay;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Finds the place of every clip of a day, or of a part of it, and keeps it, with the way, the evidence and what was
 * learned of the clocks. Clips outside the part stay where they are and say where it lies; so do locked ones. What sound
 * finds surely is kept as soon as it is found.
 */
final class PlaceClips
{
    private const SHOWN_EVERY_NS = 400_000_000;

    private int $shownAt = 0;

    /** @var array<string, array{start_ticks: int, confidence: float}> found since pages were told last, by clip */
    private array $found = [];

    public function __construct(private readonly Stores $stores, private readonly CheckPoints $points) {}

    /**
     * @param  list<string>  $ways
     * @param  callable(int, int, string): void  $progress
     * @param  int|null  $userId  whose in- and out-points count
     * @param  string|null  $anchorUlid  the clip whose clock counts; the first recording by default
     * @param  string|null  $journal  file in which a run that was killed has kept what it compared
     * @return array{placed: int, sure: int, strays: int}
     */
    public function __invoke(
        ShootDay $day,
        array $ways,
        callable $progress,
        ?Scope $scope = null,
        ?int $userId = null,
        ?string $anchorUlid = null,
        ?string $journal = null,
    ): array {
        $scope ??= Scope::day();
        $moving = $scope
            ->narrow(Scope::clips($day), $day)
            ->whereDoesntHave('placement', static fn($place) => $place->whereNotNull('left_out_at'))
            ->pluck('id')
            ->flip();
        $clips = Scope::clips($day)
            ->with(['device', 'placement', 'parts.take', 'markers'])
            ->orderBy('id')
            ->get();
        // The day begins with its first clip, and not with the first after midnight; what has no time of its own comes behind.
        $times = TimeOfDay::unwrapped($clips->whereNotNull('start_ticks')->pluck('start_ticks', 'ulid')->all());
        $clips = $clips
            ->sortBy([
                static fn(Clip $x, Clip $y): int => $x->isPicture() <=> $y->isPicture(),
                static fn(Clip $x, Clip $y): int => ($times[$x->ulid] ?? PHP_INT_MAX) <=> ($times[$y->ulid] ?? PHP_INT_MAX),
            ])
            // What is not to move counts when it has a place already.
            ->filter(static fn(Clip $clip): bool => $moving->has($clip->id) || $clip->placement?->start_ticks !== null)
            ->keyBy('ulid');
        $anchor = $clips[$anchorUlid ?? ''] ?? $this->anchor($clips, $scope->kind !== 'day');
        if ($anchor === null || $moving->isEmpty()) {
            return ['placed' => 0, 'sure' => 0, 'strays' => 0];
        }
        // A whole day is counted from the anchor's own clock, unless a person has said where the anchor lies.
        $isOwn = $anchor->placement?->start_ticks === null || ($scope->kind === 'day' && !$anchor->placement->isHeld());
        $base = $isOwn ? (int) ($anchor->start_ticks ?? 0) : $anchor->placement->start_ticks;
        $corrections = new Corrections($day);
        $kinds = [...in_array('mark', $ways, true) ? ['mark'] : [], ...in_array('clap', $ways, true) ? ['clap'] : []];
        $marks = ClipMark::query()->where('user_id', $userId)->whereIn('clip_id', $clips->pluck('id'))->get()->keyBy('clip_id');
        $result = Lineup::of(
            $clips
                ->map(
                    fn(Clip $clip): LineupClip => $this->clip(
                        $clip,
                        $base,
                        $corrections->of($clip),
                        !$moving->has($clip->id),
                        $marks->get($clip->id),
                        $kinds,
                        self::ties($clip, $clips),
                    ),
                )
                ->values()
                ->all(),
            self::ways($ways),
            function (string $id, int $done, int $total, ?SoundMatch $match) use (
                $progress,
                $clips,
                $anchor,
                $base,
                $corrections,
                $moving,
                $day,
            ): void {
                if ($match?->isSure() === true && $moving->has($clips[$match->b]->id)) {
                    $this->keepFound($day, $clips, $match, $anchor, $base, $corrections);
                }
                $progress($done, $total, $clips[$id]->name);
            },
            $anchor->ulid,
            $journal === null ? null : Journal::open($journal, self::about($clips, $ways, $anchor)),
        );
        $this->tellFound($day);
        DB::transaction(fn() => $this->save($day, $clips, $result, $base, $corrections, $moving->all(), $scope->kind === 'day'));
        $own = static fn(string $id): bool => $moving->has($clips[$id]->id);

        return [
            'placed' => count(array_filter($result->placements, static fn($place): bool => $own($place->id))),
            'sure' => count(array_filter($result->placements, static fn($place): bool => $own($place->id) && $place->sure)),
            'strays' => count(array_filter(array_keys($result->strays), static fn($id): bool => $own((string) $id))),
        ];
    }

    /**
     * Claps are marks that nobody had to set: the engine's way is the same.
     *
     * @param  list<string>  $ways
     * @return list<Way>
     */
    private static function ways(array $ways): array
    {
        return array_map(
            Way::parse(...),
            array_values(array_unique(array_map(static fn(string $way): string => $way === 'clap' ? 'mark' : $way, $ways))),
        );
    }

    /**
     * What a run that was killed has compared counts for the same clips with the same sound only.
     *
     * @param  Collection<string, Clip>  $clips
     * @param  list<string>  $ways
     */
    private static function about(Collection $clips, array $ways, Clip $anchor): string
    {
        $sound = static function (Clip $clip): string {
            $guide = MediaFolder::of($clip)->read(MediaFile::Guide);

            return "$clip->ulid $clip->duration_ticks " . (is_file($guide) ? filesize($guide) . ' ' . filemtime($guide) : '');
        };

        return implode("\n", [implode(',', $ways), $anchor->ulid, ...$clips->map($sound)->values()->all()]);
    }

    /** @param  Collection<string, Clip>  $clips */
    private function anchor(Collection $clips, bool $isPart): ?Clip
    {
        // A part is laid beside what lies there already.
        $placed = static fn(Clip $clip): bool => $clip->placement?->start_ticks !== null && $clip->placement->group === 0;

        return ($isPart ? self::firstOf($clips->filter($placed)) : null) ?? self::firstOf($clips);
    }

    /** @param  Collection<string, Clip>  $clips */
    private static function firstOf(Collection $clips): ?Clip
    {
        return $clips->first(static fn(Clip $clip): bool => $clip->isSound()) ?? $clips->first();
    }

    /**
     * @param  list<'mark'|'clap'>  $kinds  of points that may tie it to others
     * @param  array<string, int>  $ties
     */
    private function clip(Clip $clip, int $base, int $correction, bool $isFixed, ?ClipMark $mark, array $kinds, array $ties): LineupClip
    {
        $guide = MediaFolder::of($clip)->read(MediaFile::Guide);
        $isFixed = $isFixed || $clip->placement?->isHeld() === true;
        $recorded = $clip->recorded_at !== null && strlen($clip->recorded_at) > 10 ? strtotime($clip->recorded_at) : false;
        $markers = [];
        foreach (in_array('mark', $kinds, true) ? $clip->markers : [] as $marker) {
            $markers[$marker->name] ??= $marker->in_ticks;
        }
        unset($markers['']);
        $markers += in_array('clap', $kinds, true) ? $this->points->marks($clip) : [];

        return new LineupClip(
            $clip->ulid,
            (string) $clip->device->letter,
            $clip->isSound(),
            (int) $clip->duration_ticks,
            $clip->start_ticks === null ? null : $clip->start_ticks + $correction,
            $recorded === false ? null : $recorded * Ticks::PER_SECOND,
            $this->sound($clip, $guide),
            // A place that only a date gave ties nothing to the day's clock.
            $isFixed && $clip->placement?->start_ticks !== null && $clip->placement->group === 0
                ? $clip->placement->start_ticks - $base
                : null,
            $markers,
            $mark?->in_ticks,
            $mark?->out_ticks,
            // A recording over several takes is of no one of them.
            $clip->parts->count() === 1 ? $clip->parts->first()->take->label() : null,
            $ties,
        );
    }

    /**
     * What a person tied it to, where that lies on no clock of the day; one that was only moved stays where it is beside the
     * first of its group.
     *
     * @param  Collection<string, Clip>  $clips
     * @return array<string, int>
     */
    private static function ties(Clip $clip, Collection $clips): array
    {
        $place = $clip->placement;
        if ($place?->isHeld() !== true || $place->start_ticks === null || (int) $place->group === 0) {
            return [];
        }
        $known = $place->evidence;
        if (isset($known['against'], $known['against_ticks'], $known['own_ticks'])) {
            return [(string) $known['against'] => $known['against_ticks'] - $known['own_ticks']];
        }
        $first = $clips->first(
            static fn(Clip $other): bool => $other->id !== $clip->id &&
                $other->placement?->start_ticks !== null &&
                $other->placement->group === $place->group,
        );

        return $first === null ? [] : [$first->ulid => $place->start_ticks - $first->placement->start_ticks];
    }

    /**
     * What cataloguing kept; where it could not, the file itself, whose fault then is the clip's reason and nobody else's.
     *
     * @return (\Closure(): GuideTrack)|null null where nothing was recorded
     */
    private function sound(Clip $clip, string $guide): ?\Closure
    {
        if (is_file($guide)) {
            return static fn(): GuideTrack => GuideTrack::ofFile($guide);
        }
        $streams = MediaRecipe::streams($clip) ?: array_filter([count($clip->channels ?? [])]);

        return $streams === []
            ? null
            : function () use ($clip, $streams): GuideTrack {
                try {
                    return GuideTrack::decode($this->stores->fileOf($clip), $streams);
                } catch (Problem $trouble) {
                    throw UnableToReadMedia::program('Line-up', $clip->name, $trouble->getMessage());
                }
            };
    }

    /**
     * A sure find, before the run is over: on the anchor's clock as far as that is known by then.
     *
     * @param  Collection<string, Clip>  $clips
     */
    private function keepFound(ShootDay $day, Collection $clips, SoundMatch $match, Clip $anchor, int $base, Corrections $corrections): void
    {
        [$against, $clip] = [$clips[$match->a], $clips[$match->b]];
        $from = match (true) {
            $against->id === $anchor->id => $base,
            $against->device_id === $anchor->device_id && $against->start_ticks !== null && $anchor->start_ticks !== null => $base +
                $against->start_ticks +
                $corrections->of($against) -
                $anchor->start_ticks -
                $corrections->of($anchor),
            default => null,
        };
        if ($from === null) {
            return;
        }
        $isKept = DB::transaction(static function () use ($day, $clip, $match, $from): bool {
            $place =
                Placement::query()->where('clip_id', $clip->id)->lockForUpdate()->first() ??
                new Placement(['clip_id' => $clip->id, 'shoot_day_id' => $day->id]);
            // Somebody may have decided about it since the run began; or it is there already.
            if ($place->isHeld() || $place->left_out_at !== null || $place->start_ticks === $from + $match->offsetTicks) {
                return false;
            }

            return $place
                ->fill([
                    'group' => 0,
                    'start_ticks' => $from + $match->offsetTicks,
                    'way' => 'sound',
                    'confidence' => $match->confidence(),
                    'is_sure' => true,
                    'drift_ppm' => $match->driftPpm,
                    'evidence' => [
                        'against' => $match->a,
                        'height' => $match->height,
                        'windows' => $match->windows,
                        'agreeing' => $match->agreeing,
                    ],
                    'stray_reason' => null,
                ])
                ->save();
        });
        if (!$isKept) {
            return;
        }
        $this->found[$clip->ulid] = ['start_ticks' => $from + $match->offsetTicks, 'confidence' => $match->confidence()];
        if (hrtime(true) - $this->shownAt > self::SHOWN_EVERY_NS) {
            $this->tellFound($day);
        }
    }

    /** Pages lay what was found where it belongs, and ask for the whole line-up once, when the run is over. */
    private function tellFound(ShootDay $day): void
    {
        $this->shownAt = hrtime(true);
        foreach (array_chunk($this->found, 200, true) as $some) {
            Live::tell($day->production_id, Topic::Lineup, ['day' => $day->ulid, 'found' => $some]);
        }
        $this->found = [];
    }

    /**
     * @param  Collection<string, Clip>  $clips
     * @param  array<int, mixed>  $moving  by clip id
     */
    private function save(
        ShootDay $day,
        Collection $clips,
        LineupResult $result,
        int $base,
        Corrections $corrections,
        array $moving,
        bool $isWhole,
    ): void {
        // Somebody may have locked a clip, or taken it out, while the run went on: what a person decides stands.
        /** @var Collection<int, Placement> $now */
        $now = Placement::query()->whereIn('clip_id', array_keys($moving))->lockForUpdate()->get()->keyBy('clip_id');
        $isFree = static fn(Clip $clip): bool => isset($moving[$clip->id]) &&
            $now->get($clip->id)?->isHeld() !== true &&
            $now->get($clip->id)?->left_out_at === null;
        $groups = $this->groups($day, $clips, $result, $base, $moving, $isWhole);
        foreach ($result->placements as $place) {
            $clip = $clips[$place->id];
            $held = $now->get($clip->id);
            if ($held?->isHeld() === true && $held->group > 0) {
                // It keeps what a person tied it to, and goes where that goes.
                $held->update([
                    'group' => $groups[$place->group]['number'],
                    'start_ticks' => $groups[$place->group]['start_ticks'] + $place->startTicks,
                ]);
            } elseif ($isFree($clip)) {
                Placement::query()->updateOrCreate(
                    ['clip_id' => $clip->id],
                    [
                        'shoot_day_id' => $day->id,
                        'group' => $groups[$place->group]['number'],
                        'start_ticks' => $groups[$place->group]['start_ticks'] + $place->startTicks,
                        'way' => $place->way->value,
                        'confidence' => $place->confidence,
                        'is_sure' => $place->sure,
                        'drift_ppm' => $place->driftPpm,
                        'evidence' => $place->evidence + array_filter(['laid_by' => $groups[$place->group]['by']]),
                        'stray_reason' => null,
                    ],
                );
            }
        }
        $names = $clips->map(static fn(Clip $clip): string => $clip->name)->all();
        foreach ($result->strays as $id => $reason) {
            $clip = $clips[$id];
            if ($isFree($clip)) {
                Placement::query()->updateOrCreate(
                    ['clip_id' => $clip->id],
                    [
                        'shoot_day_id' => $day->id,
                        'group' => null,
                        'start_ticks' => null,
                        'way' => null,
                        'confidence' => null,
                        'is_sure' => false,
                        'drift_ppm' => null,
                        'evidence' => null,
                        'stray_reason' => mb_substr(strtr($reason, $names), 0, 300),
                        'locked_at' => null,
                    ],
                );
            }
        }
        if (!$isWhole) {
            return; // a part of a day teaches less of its clocks than the day has
        }
        foreach ($day->production->devices as $device) {
            $learned = $result->deviceOffsets[$device->letter] ?? null;
            if ($learned !== null && $learned['votes'] > 0) {
                $row = ClockOffset::query()->firstOrNew(['device_id' => $device->id, 'shoot_day_id' => $day->id]);
                // Learned against times that were corrected already, so the correction belongs to what was learned.
                $row->fill([
                    'learned_ticks' => $learned['offset_ticks'] + $corrections->ofDevice($device->id),
                    'votes' => $learned['votes'],
                ])->save();
            }
        }
    }

    /**
     * Where each group of a run lies on the day. A group to which clips belong that are not to move keeps its number and
     * its place; the others come behind those that are there.
     *
     * @param  Collection<string, Clip>  $clips
     * @param  array<int, mixed>  $moving  by clip id
     * @return array<int, array{number: int, start_ticks: int, by: string|null}> by the run's number
     */
    private function groups(ShootDay $day, Collection $clips, LineupResult $result, int $base, array $moving, bool $isWhole): array
    {
        $next = $isWhole ? 1 : 1 + (int) Placement::query()->where('shoot_day_id', $day->id)->max('group');
        $groups = [0 => ['number' => 0, 'start_ticks' => $base, 'by' => null]];
        foreach ($result->placements as $place) {
            $stays = $clips[$place->id]->placement;
            if ($place->group > 0 && !isset($moving[$clips[$place->id]->id]) && $stays?->start_ticks !== null && $stays->group > 0) {
                $groups[$place->group] ??= [
                    'number' => $stays->group,
                    'start_ticks' => $stays->start_ticks - $place->startTicks,
                    'by' => $stays->evidence['laid_by'] ?? null,
                ];
            }
        }
        foreach ($result->groups as $group => $laid) {
            $groups[$group] ??= ['number' => $next++, 'start_ticks' => $base + $laid['offset_ticks'], 'by' => $laid['by']];
        }

        return $groups;
    }
}
