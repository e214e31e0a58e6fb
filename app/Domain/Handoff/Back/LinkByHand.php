<?php

declare(strict_types=1);

namespace App\Domain\Handoff\Back;

use App\Domain\Sequences\SequenceStore;
use App\Models\Clip;
use App\Models\StoredSequence;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Exchange\Relink\Candidate;
use Cartella\Core\Exchange\Relink\Link;
use Cartella\Core\Exchange\Relink\LinkWay;
use Cartella\Core\Exchange\Relink\Relink;

/** A person says which clip an event means; others of the same folder are offered to go the same way. */
final class LinkByHand
{
    public function __construct(private readonly SequenceStore $store) {}

    /**
     * Links events to clips, in one step that can be taken back.
     *
     * @param  list<array{track: int, index: int, clip: Clip, was: string|null}>  $pairs  `was` is the clip that the page saw there
     *
     * @throws Problem if a clip cannot be what an event shows, the event is gone, or somebody linked it meanwhile
     */
    public function __invoke(StoredSequence $stored, User $user, array $pairs): void
    {
        $this->store->alone($stored, function (StoredSequence $now) use ($user, $pairs): void {
            $cut = $this->store->read($now);
            $changed = [];
            foreach ($pairs as ['track' => $number, 'index' => $index, 'clip' => $clip, 'was' => $was]) {
                [$item, $track] = self::event($cut, $number, $index);
                if ((ReceivedEvents::isLinked($item) ? $item->source->id : null) !== $was) {
                    throw Problem::conflict('list.linked', 'Somebody linked this event meanwhile.', 'Look at what it shows now.');
                }
                $changed[$number] ??= $track->items;
                $changed[$number][$index] = Relink::linked(
                    $item,
                    self::link($item, $track, $clip, $cut),
                    (string) ($item->metadata[Relink::KEY]['place'] ?? ''),
                );
            }
            $first = $pairs[0]['clip']->title();
            $this->store->replace(
                $now,
                $user,
                $cut->with($changed),
                count($pairs) === 1 ? "Link an event of $now->name to $first" : sprintf('Link %d events of %s', count($pairs), $now->name),
            );
        });
    }

    /**
     * Events that are not linked and come from where a given one does, each with the clip beside the chosen one that it means.
     *
     * @return list<array{track: int, index: int, name: string, clip: string, clip_name: string, reason: string}>
     *
     * @throws Problem if the event is gone
     */
    public function others(StoredSequence $stored, int $number, int $index, Clip $clip): array
    {
        $cut = $this->store->read($stored);
        [$given] = self::event($cut, $number, $index);
        $folder = self::folder($given);
        $beside = $this->beside($clip, $given->source->reel);
        $relink = new Relink($beside, $cut->rate);
        $names = [];
        foreach ($beside as $one) {
            $names[$one->source->id] = $one->source->name;
        }
        $others = [];
        foreach ($cut->tracks as $at => $track) {
            foreach ($track->items as $n => $item) {
                if (($at === $number && $n === $index) || ReceivedEvents::isLinked($item) || self::folder($item) !== $folder) {
                    continue;
                }
                $link = $relink->find($item, $track);
                if ($link->candidate !== null) {
                    $id = $link->candidate->source->id;
                    $others[] = [
                        'track' => $at,
                        'index' => $n,
                        'name' => $item->name,
                        'clip' => $id,
                        'clip_name' => $names[$id],
                        'reason' => $link->reason,
                    ];
                }
            }
        }

        return $others;
    }

    /** @return array{Item, Track} */
    private static function event(Sequence $cut, int $number, int $index): array
    {
        $track = $cut->tracks[$number] ?? null;
        $item = $track?->items[$index] ?? null;

        return $track === null || $item === null ? throw Problem::missing('That event', 'Load the page again.') : [$item, $track];
    }

    /** From where an event comes: the folder of its file, or its reel where a list knows no folders. */
    private static function folder(Item $item): string
    {
        $path = str_replace('\\', '/', (string) $item->source->path);

        return str_contains($path, '/') ? dirname($path) : 'reel ' . mb_strtolower((string) $item->source->reel);
    }

    private static function link(Item $item, Track $track, Clip $clip, Sequence $cut): Link
    {
        // The reel that the list names is what the person sets right; the time it reads has to be there.
        $candidate = Candidates::candidate($clip, [], $item->source->reel ?? 'hand');
        $asked = new Item(
            $item->name,
            $item->source->reel === null ? self::onReel($item) : $item->source,
            $item->sourceStartTicks,
            $item->durationTicks,
            $item->recordStartTicks,
            speed: $item->speed,
        );
        $relink = new Relink([$candidate, self::called($candidate, $item->name)], $cut->rate);
        $link = $relink->find($asked, $track);
        if ($link->candidate === null) {
            throw Problem::refused('list.link', $link->reason, 'Choose another clip, or leave the event as it is.');
        }

        return new Link(LinkWay::Hand, 'A person chose it.', Candidates::candidate($clip), $link->sourceStartTicks);
    }

    private static function onReel(Item $item): Source
    {
        $source = $item->source;

        return new Source($source->id, $source->name, $source->path, 'hand', $source->startTicks, $source->durationTicks, $source->rate);
    }

    /** The same clip under the event's own name, for a list whose times count from the clip's first frame. */
    private static function called(Candidate $one, string $name): Candidate
    {
        return new Candidate($one->source, $one->isSound, [$name], [], $one->folder, $one->hasTimecode);
    }

    /** @return list<Candidate> what came in together with a clip, as if it were of the list's reel */
    private function beside(Clip $clip, ?string $reel): array
    {
        $query = Candidates::clips($clip->production);
        $clip->card_id === null
            ? $query->whereNull('clips.card_id')->where('clips.path', 'like', addcslashes(dirname($clip->path), '%_\\') . '/%')
            : $query->where('clips.card_id', $clip->card_id);

        return $query->limit(5000)->get()->map(static fn(Clip $one): Candidate => Candidates::candidate($one, [], $reel))->all();
    }
}
