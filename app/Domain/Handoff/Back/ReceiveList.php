<?php

declare(strict_types=1);

namespace App\Domain\Handoff\Back;

use App\Domain\Sequences\SequenceStore;
use App\Models\Production;
use App\Models\SequenceKind;
use App\Models\ShootDay;
use App\Models\StoredSequence;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Exchange\ListProblem;
use Cartella\Core\Exchange\Relink\Relink;
use Cartella\Core\Time\FrameRate;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;

/**
 * A list of the editing team becomes a cut whose items are linked to what is here. Nothing of the production changes: no clip is
 * made, and rates, sizes and settings stay as they are. The same list comes in once.
 */
final class ReceiveList
{
    /** Metadata of the cut: from which file it came. */
    public const KEY = 'received';

    /** What could not be read, as far as anybody reads it. */
    private const PROBLEMS = 200;

    public function __construct(private readonly SequenceStore $store) {}

    /**
     * @param  string  $file  as it was called
     * @param  FrameRate|null  $rate  of an edit decision list; null for the production's
     *
     * @throws Problem if it is no list, or the same one is here already
     */
    public function __invoke(
        Production $production,
        User $user,
        ?ShootDay $day,
        string $file,
        string $bytes,
        ?FrameRate $rate,
    ): StoredSequence {
        $mark = hash('sha256', $bytes . ($rate?->label() ?? ''));
        self::once($production, $mark);
        $read = ListFile::read($bytes, $rate ?? $production->rate());
        $linked = (new Relink(Candidates::of($production, $read->sequence), $read->sequence->rate))->all($read->sequence, $read->places);
        $name = self::plain(pathinfo($file, PATHINFO_FILENAME));
        $cut = new Sequence(
            $linked->title === 'Untitled' && $name !== '' ? $name : $linked->title,
            $linked->rate,
            $linked->startTicks,
            $linked->tracks,
            [
                self::KEY => [
                    'file' => self::plain(basename($file)),
                    'format' => ListFile::format($bytes),
                    'problems' => array_map(
                        static fn(ListProblem $one): array => $one->toArray(),
                        array_slice($read->problems, 0, self::PROBLEMS),
                    ),
                    'problem_count' => count($read->problems),
                ],
            ] + $linked->metadata,
        );

        return DB::transaction(function () use ($production, $user, $day, $cut, $mark): StoredSequence {
            // Two people may bring the same list at once.
            Production::query()->whereKey($production->id)->lockForUpdate()->first();
            self::once($production, $mark);

            return $this->store->create($production, $user, SequenceKind::Received, $cut, $day, null, $mark, 'Bring in ' . $cut->title);
        });
    }

    /** @throws Problem if a list of the same bytes is here */
    private static function once(Production $production, string $mark): void
    {
        $there = self::lists($production)->where('made_of', $mark)->first();
        if ($there !== null) {
            throw Problem::conflict('list.there', "This list came in already, as $there->name.", 'Open that one.', [
                'sequence' => $there->ulid,
            ]);
        }
    }

    /** @return Builder<StoredSequence> lists of a production that came back, the newest first */
    public static function lists(Production $production): Builder
    {
        return StoredSequence::query()
            ->where('production_id', $production->id)
            ->where('kind', SequenceKind::Received)
            ->whereNull('removed_at')
            ->latest('id');
    }

    /** Looks again for what is not linked: cards may have come in since. */
    public function again(StoredSequence $stored, User $user): int
    {
        return $this->store->alone($stored, function (StoredSequence $now) use ($user): int {
            $cut = $this->store->read($now);
            $relink = new Relink(Candidates::of($now->production, $cut), $cut->rate);
            $changed = [];
            $count = 0;
            foreach ($cut->tracks as $number => $track) {
                foreach ($track->items as $index => $item) {
                    if (ReceivedEvents::isLinked($item)) {
                        continue;
                    }
                    $link = $relink->find($item, $track);
                    $changed[$number] ??= $track->items;
                    $changed[$number][$index] = Relink::linked($item, $link, (string) ($item->metadata[Relink::KEY]['place'] ?? ''));
                    $count += (int) ($link->candidate !== null);
                }
            }
            if ($count > 0) {
                $this->store->replace($now, $user, $cut->with($changed), sprintf('Link %d more of %s', $count, $now->name));
            }

            return $count;
        });
    }

    private static function plain(string $name): string
    {
        return mb_substr(trim((string) preg_replace('/[\x00-\x1F\x7F]+/', ' ', mb_scrub($name))), 0, 160);
    }
}
