<?php

declare(strict_types=1);

namespace App\Domain\Handoff\Back;

use App\Domain\Sequences\SequenceStore;
use App\Models\Clip;
use App\Models\StoredSequence;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Exchange\ListProblem;
use Cartella\Core\Exchange\Relink\LinkWay;
use Cartella\Core\Exchange\Relink\Relink;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Time\Timecode;

/** The events of a list that came back: what each was linked to and why, or why not. */
final class ReceivedEvents
{
    public function __construct(private readonly SequenceStore $store) {}

    public static function isLinked(Item $item): bool
    {
        return ($item->metadata[Relink::KEY]['way'] ?? LinkWay::None->value) !== LinkWay::None->value;
    }

    /** @return array{linked: int, total: int} */
    public static function counts(Sequence $sequence): array
    {
        $linked = $total = 0;
        foreach ($sequence->tracks as $track) {
            foreach ($track->items as $item) {
                $total++;
                $linked += (int) self::isLinked($item);
            }
        }

        return compact('linked', 'total');
    }

    /** @return array<string, mixed> */
    public function of(StoredSequence $stored): array
    {
        $cut = $this->store->read($stored);
        $received = $cut->metadata[ReceiveList::KEY] ?? [];
        $known = Clip::query()
            ->where('production_id', $stored->production_id)
            ->whereIn('ulid', self::sources($cut))
            ->with(['parts.take', 'device'])
            ->get()
            ->keyBy('ulid');
        $label = static fn(int $ticks): string => Timecode::label(Ticks::toFrames($ticks, $cut->rate), $cut->rate);
        $events = [];
        foreach ($cut->tracks as $number => $track) {
            foreach ($track->items as $index => $item) {
                $link = $item->metadata[Relink::KEY] ?? [];
                $clip = self::isLinked($item) ? $known[$item->source->id] ?? null : null;
                $from = $item->source->startTicks + $item->sourceStartTicks;
                $events[] = [
                    'track' => $number,
                    'index' => $index,
                    'on' => $track->name,
                    'kind' => $track->kind->value,
                    'name' => $item->name,
                    'reel' => $item->source->reel,
                    'source_in' => $label($from),
                    'source_out' => $label($from + abs($item->speed->ofSource($item->durationTicks))),
                    'record_in' => $label($cut->startTicks + $item->recordStartTicks),
                    'record_out' => $label($cut->startTicks + $item->recordEndTicks()),
                    'at_ticks' => $item->recordStartTicks,
                    'way' => (string) ($link['way'] ?? LinkWay::None->value),
                    'reason' => (string) ($link['reason'] ?? ''),
                    'place' => (string) ($link['place'] ?? ''),
                    'clip' => $clip?->ulid,
                    'clip_name' => $clip?->title(),
                    'slates' => $clip?->slates(),
                    'in_ticks' => $clip === null ? null : $item->sourceStartTicks,
                ];
            }
        }
        usort($events, static fn(array $x, array $y): int => [$x['at_ticks'], $x['track']] <=> [$y['at_ticks'], $y['track']]);

        return [
            'ulid' => $stored->ulid,
            'name' => $stored->name,
            'file' => (string) ($received['file'] ?? ''),
            'format' => (string) ($received['format'] ?? 'edl'),
            'rate' => $cut->rate->label(),
            'start' => $label($cut->startTicks),
            'length' => Timecode::duration(Ticks::toFrames($cut->durationTicks(), $cut->rate), $cut->rate),
            'events' => $events,
            'problems' => array_map(
                static fn(array $one): array => [
                    'where' => ListProblem::fromArray($one)->where(),
                    'reason' => ListProblem::fromArray($one)->reason,
                ],
                array_values(array_filter((array) ($received['problems'] ?? []), is_array(...))),
            ),
            'problem_count' => (int) ($received['problem_count'] ?? 0),
        ] + self::counts($cut);
    }

    /** @return list<string> */
    private static function sources(Sequence $cut): array
    {
        $ids = [];
        foreach ($cut->tracks as $track) {
            foreach ($track->items as $item) {
                $ids[$item->source->id] = true;
            }
        }

        return array_values(array_filter(array_map(strval(...), array_keys($ids)), static fn(string $id): bool => strlen($id) === 26));
    }
}
