<?php

declare(strict_types=1);

namespace App\Domain\Assembly;

use App\Domain\Lineup\Windows;
use App\Domain\Words\ActionCalls;
use App\Domain\Words\ClipWords;
use App\Domain\Words\SceneReads;
use App\Domain\Words\WordStretch;
use App\Models\Clip;
use App\Models\Production;
use App\Models\Take;
use App\Models\TakePart;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;

/**
 * What lies under the playhead of a cut: which take and clip, how much more of it there is, and what else could stand there: the
 * other cameras at the same moment, and the same moment of other takes.
 */
final readonly class Beneath
{
    /** Other takes that are offered. */
    private const MOST = 12;

    public function __construct(private SceneReads $reads) {}

    /**
     * @return array{clip: Clip|null, take: Take|null, before: int, after: int, instead: list<array{kind: 'angle'|'take', label: string,
     *     take: Take|null, clip: Clip, in: int, out: int, how: 'words'|'action'|'start'|'whole'|'clock'}>}|null null where nothing is;
     *     ticks; `how` says by what the same moment was found; another take may last longer or shorter
     */
    public function of(Production $production, Sequence $sequence, int $track, int $index): ?array
    {
        $item = $sequence->tracks[$track]->items[$index] ?? null;
        if ($item === null) {
            return null;
        }
        $clip = self::clip($production, $item->source->id);
        $take = isset($item->metadata['take'])
            ? Take::query()->where('production_id', $production->id)->where('ulid', (string) $item->metadata['take'])->first()
            : $clip?->take;
        [$before, $after] = self::room($sequence->tracks[$track], $item);

        return [
            'clip' => $clip,
            'take' => $take,
            'before' => $before,
            'after' => $after,
            'instead' =>
                $clip === null || !$clip->isPicture() ? [] : [...self::angles($clip, $take, $item), ...$this->takes($clip, $take, $item)],
        ];
    }

    private static function clip(Production $production, string $ulid): ?Clip
    {
        return Clip::query()
            ->where('production_id', $production->id)
            ->where('ulid', $ulid)
            ->with(['placement', 'device.look', 'look', 'card', 'day', 'production', 'take', 'parts'])
            ->first();
    }

    /** @return array{int, int} ticks of the source that an edge could still be moved over, whatever lies beside it */
    private static function room(Track $track, Item $item): array
    {
        return [$item->sourceStartTicks, max(0, $item->source->durationTicks - $item->sourceEndTicks())];
    }

    /** @return list<array{kind: 'angle', label: string, take: Take|null, clip: Clip, in: int, out: int, how: 'clock'}> */
    private static function angles(Clip $clip, ?Take $take, Item $item): array
    {
        $found = [];
        foreach (Windows::beside($clip)->partners($clip, 'picture') as $other) {
            $in = $item->sourceStartTicks + $clip->placement->start_ticks - $other->placement->start_ticks;
            $out = $in + $item->durationTicks;
            // One that was not rolling all the time would leave a hole.
            if ($in >= 0 && $out <= (int) $other->duration_ticks) {
                $label = trim(($take?->label() ?? '') . ' ' . ($other->device->letter ?? $other->title()));
                $found[] = [
                    'kind' => 'angle',
                    'label' => $label,
                    'take' => $take,
                    'clip' => $other->load(['device.look', 'look', 'card', 'production']),
                    'in' => $in,
                    'out' => $out,
                    'how' => 'clock',
                ];
            }
        }
        usort($found, static fn(array $x, array $y): int => ($x['clip']->device->lane ?? 99) <=> ($y['clip']->device->lane ?? 99));

        return $found;
    }

    /**
     * An item that shows its take to the end has the others' to theirs; one that shows a stretch, as long a stretch as there is.
     *
     * @return list<array{kind: 'take', label: string, take: Take, clip: Clip, in: int, out: int, how: 'words'|'action'|'start'|'whole'}>
     */
    private function takes(Clip $clip, ?Take $take, Item $item): array
    {
        if ($take === null) {
            return [];
        }
        $said = $this->sameLine($clip, $take, $item);
        $others = Take::query()
            ->where('production_id', $take->production_id)
            ->where('id', '!=', $take->id)
            ->where(static fn($any) => $any->where('setup', $take->setup)->orWhereIn('ulid', array_keys($said)))
            ->where('scene', $take->scene)
            ->with([
                'parts.clip.placement',
                'parts.clip.device.look',
                'parts.clip.look',
                'parts.clip.card',
                'parts.clip.production',
                'parts.clip.day',
            ])
            ->orderByRaw("status = 'circled' DESC, status = 'ng', sort_key")
            ->limit(self::MOST)
            ->get();
        $calls = ActionCalls::of([$take->id, ...$others->modelKeys()]);
        $action = $calls[$take->id][$clip->id] ?? null;
        [$own, $end] = self::stretch($take, $clip, $clip->parts);
        $frame = ($clip->rate() ?? $clip->production->rate())->ticksPerFrame();
        $isToEnd = abs($item->sourceEndTicks() - $end) < $frame;
        $isWhole = $isToEnd && abs($item->sourceStartTicks - $own) < $frame;
        $found = [];
        foreach ($others as $other) {
            $picture = self::picture($other, $clip->device?->letter);
            if ($picture === null) {
                continue;
            }
            [$begin, $stop] = self::stretch($other, $picture, $other->parts);
            $theirs = $calls[$other->id][$picture->id] ?? null;
            [$in, $how] = match (true) {
                $isWhole => [$begin, 'whole'],
                isset($said[$other->ulid]) => [self::onPicture($picture, $said[$other->ulid]), 'words'],
                $action !== null && $theirs !== null => [$theirs + $item->sourceStartTicks - $action, 'action'],
                default => [$begin + $item->sourceStartTicks - $own, 'start'],
            };
            if ($in !== null) {
                $in = max(0, $isToEnd ? $in : min($stop - $item->durationTicks, $in));
                $out = $isToEnd ? $stop : min($stop, $in + $item->durationTicks);
            }
            if ($in !== null && $out - $in >= $frame) {
                $found[] = [
                    'kind' => 'take',
                    'label' => trim($other->label() . ' ' . ($picture->device->letter ?? '')),
                    'take' => $other,
                    'clip' => $picture,
                    'in' => $in,
                    'out' => $out,
                    'how' => $how,
                ];
            }
        }

        return $found;
    }

    /**
     * @param  iterable<TakePart>  $parts  of either
     * @return array{int, int} what of a clip is of a take, ticks; all of it where nobody said
     */
    private static function stretch(Take $take, Clip $clip, iterable $parts): array
    {
        foreach ($parts as $part) {
            if ($part->take_id === $take->id && $part->clip_id === $clip->id) {
                return [(int) $part->in_ticks, $part->out_ticks ?? $clip->playableTicks()];
            }
        }

        return [0, $clip->playableTicks()];
    }

    /**
     * Where other takes say the line that is heard in the middle of an item.
     *
     * @return array<string, array{clip: Clip, ticks: int}> by the takes' ULIDs: the recording and the place in it at which the item
     *     would begin
     */
    private function sameLine(Clip $clip, Take $take, Item $item): array
    {
        $middle = $item->sourceStartTicks + intdiv($item->durationTicks, 2);
        $offsets = [];
        foreach ([$clip, ...ClipWords::heardIn($clip)] as $sound) {
            $offsets[$sound->ulid] = WordStretch::offset($clip, $sound);
        }
        $best = null;
        foreach ($this->reads->of($take->production, $take->scene)['lines'] as $line) {
            foreach ($line['reads'] as $read) {
                if ($read['take'] !== $take->ulid || !isset($offsets[$read['clip']])) {
                    continue;
                }
                [$from, $to] = [$read['start_ticks'] + $offsets[$read['clip']], $read['end_ticks'] + $offsets[$read['clip']]];
                $far = $middle < $from ? $from - $middle : max(0, $middle - $to);
                $isIn = $from < $item->sourceEndTicks() && $to > $item->sourceStartTicks;
                if ($isIn && ($best === null || $far < $best[0])) {
                    $best = [$far, $line['reads'], $from - $item->sourceStartTicks];
                }
            }
        }
        if ($best === null) {
            return [];
        }
        [, $reads, $lead] = $best;
        $clips = Clip::query()
            ->where('production_id', $take->production_id)
            ->whereIn('ulid', array_column($reads, 'clip'))
            ->with('placement')
            ->get()
            ->keyBy('ulid');
        $places = [];
        foreach ($reads as $read) {
            if ($read['take'] !== $take->ulid && !isset($places[$read['take']]) && isset($clips[$read['clip']])) {
                $places[$read['take']] = ['clip' => $clips[$read['clip']], 'ticks' => $read['start_ticks'] - $lead];
            }
        }

        return $places;
    }

    /** @param  array{clip: Clip, ticks: int}  $place  of a recording; null where the picture has no place beside it */
    private static function onPicture(Clip $picture, array $place): ?int
    {
        if ($place['clip']->id === $picture->id) {
            return $place['ticks'];
        }
        $sound = $place['clip']->placement;
        $own = $picture->placement;

        return $sound?->start_ticks === null || $own?->start_ticks === null || $sound->group !== $own->group
            ? null
            : $place['ticks'] + $sound->start_ticks - $own->start_ticks;
    }

    /** The take's picture of a camera; that of its first lane where it has none of it. */
    private static function picture(Take $take, ?string $letter): ?Clip
    {
        $best = null;
        foreach ($take->parts as $part) {
            $clip = $part->clip;
            if (!$clip->isPicture() || $clip->away_at !== null || $clip->proxied_at === null) {
                continue;
            }
            $rank = [$clip->device?->letter === $letter ? 0 : 1, $clip->device->lane ?? 99, -(int) $clip->duration_ticks];
            if ($best === null || $rank < $best[0]) {
                $best = [$rank, $clip];
            }
        }

        return $best[1] ?? null;
    }
}
