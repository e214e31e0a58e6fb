<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Bins\BinRows;
use App\Domain\Bins\BinTree;
use App\Domain\Footage\GiveNames;
use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Words\WordsOut;
use App\Models\CardFile;
use App\Models\Clip;
use App\Models\Handoff;
use App\Models\Production;
use App\Models\SequenceKind;
use App\Models\ShootDay;
use App\Models\StoredSequence;
use App\Models\Take;
use App\Models\TakePart;
use App\Support\Problem;
use Cartella\Core\CartellaException;
use Cartella\Core\Custody\PathTemplate;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * What a package will hold, before a byte of it is written: every medium and list with its place, its size as far as it is known,
 * and whether it is new, changed or moved since what was accepted.
 */
final class PackingPlan
{
    /** @var list<PackingItem> */
    public array $items = [];

    /** @var array<string, array{path: string, mark: string, folder: string}> what was accepted, by key */
    private array $accepted = [];

    /** @var array<string, string>|null paths of what goes, by key */
    private ?array $places = null;

    public ?int $since = null;

    /** @var Collection<int, Clip> */
    public Collection $clips;

    /** @var Collection<int, ShootDay> whose clips go */
    public Collection $days;

    public readonly PackagePaths $paths;

    public function __construct(
        public readonly Production $production,
        public readonly PackageChoice $choice,
        PackageClips $clips,
        BinRows $bins,
        BinTree $tree,
        GiveNames $naming,
    ) {
        $this->acceptedSoFar();
        $this->clips = $clips->of($production, $choice);
        $this->paths = new PackagePaths($choice->folders, $this->names($naming));
        foreach ($this->clips as $clip) {
            $this->paths->of($clip);
        }
        $this->media();
        $here = $this->clips->keyBy('id');
        $this->takes($here);
        $this->cuts($here, $clips->sequences($production, $choice));
        $this->bins($here, $bins, $tree);
        if ($choice->isSince) {
            $this->onlyNews();
        }
        $this->days = ShootDay::query()
            ->whereIn('id', $this->clips->pluck('shoot_day_id')->unique())
            ->orderBy('number')
            ->get();
    }

    /**
     * @return array<string, string> by the clips' ULIDs
     *
     * @throws Problem if the pattern is none
     */
    private function names(GiveNames $naming): array
    {
        if (trim($this->choice->pattern) === '') {
            return [];
        }
        try {
            $given = $naming->preview($this->production, 'clips', $this->clips->pluck('ulid')->all(), $this->choice->pattern);
        } catch (CartellaException $bad) {
            throw Problem::refused('handoff.pattern', $bad->getMessage(), 'Correct the names of media, or leave them empty.');
        }

        return array_column($given, 'name', 'ulid');
    }

    /** What was accepted last of each thing. */
    private function acceptedSoFar(): void
    {
        $accepted = Handoff::query()
            ->where('production_id', $this->production->id)
            ->where('state', 'accepted')
            ->whereNotNull('packing')
            ->orderBy('number')
            ->get(['id', 'number', 'folder', 'packing']);
        foreach ($accepted as $one) {
            $this->since = $one->number;
            foreach ($one->packing ?? [] as $key => [$path, $mark]) {
                $this->accepted[$key] = ['path' => $path, 'mark' => $mark, 'folder' => basename($one->folder)];
            }
        }
    }

    private function media(): void
    {
        $originals = $this->choice->hasOriginals() ? $this->sizes() : [];
        $recordings = $this->recordings();
        foreach ($this->clips as $clip) {
            $path = $this->paths->of($clip);
            $length = (int) $clip->duration_ticks;
            if ($clip->import_kind !== null) {
                $this->items[] = new PackingItem(
                    "imports:$clip->ulid",
                    $path,
                    self::mark([$clip->path, $length]),
                    (int) ($clip->facts['size_bytes'] ?? 0),
                    $clip,
                );
            } elseif ($clip->isSound()) {
                $this->sound($clip, $path);
            } else {
                if ($this->choice->hasProxies()) {
                    $proxy = MediaFolder::of($clip)->read(MediaFile::Proxy);
                    $this->items[] = new PackingItem(
                        "proxies:$clip->ulid",
                        $path,
                        self::mark([
                            $clip->media_recipe,
                            $clip->proxied_at?->getTimestamp(),
                            $clip->start_ticks,
                            $this->choice->mixes
                                ? [$clip->placement?->start_ticks, $clip->take?->listening, $recordings[$clip->shoot_day_id] ?? '']
                                : null,
                        ]),
                        (int) @filesize($proxy),
                        $clip,
                    );
                }
                if ($this->choice->hasOriginals()) {
                    $this->items[] = new PackingItem(
                        "originals:$clip->ulid",
                        $this->paths->original($clip),
                        self::mark([$clip->path, $length]),
                        $originals[$clip->id] ?? 0,
                        $clip,
                    );
                }
            }
        }
    }

    private function sound(Clip $clip, string $path): void
    {
        $mark = self::mark([$clip->path, $clip->duration_ticks, $this->choice->sound]);
        $bytes = intdiv((int) $clip->duration_ticks, 705_600_000) * (int) $clip->sample_rate * 3;
        $stem = substr($path, 0, -strlen('.wav'));
        $channels = array_values($clip->channels ?? []);
        if ($this->choice->sound === 'recorded') {
            $this->items[] = new PackingItem("sound:$clip->ulid", $path, $mark, $bytes * max(1, count($channels)), $clip);
        } elseif ($this->choice->sound === 'mix') {
            $this->items[] = new PackingItem("sound:$clip->ulid", "{$stem}_mix.wav", $mark, $bytes * 2, $clip, channel: 0);
        } elseif ($this->choice->sound === 'split') {
            foreach ($channels as $number => $channel) {
                $name = PathTemplate::plain((string) ($channel['name'] ?? ''));
                $file = sprintf('%s_%d%s.wav', $stem, $number + 1, $name === '' || $name === '_' ? '' : "_$name");
                $this->items[] = new PackingItem("sound:$clip->ulid:" . ($number + 1), $file, $mark, $bytes, $clip, channel: $number + 1);
            }
        }
    }

    /** @return array<int, int> bytes of the recordings' files, by clip */
    private function sizes(): array
    {
        $sizes = [];
        foreach ($this->clips->filter(static fn(Clip $clip): bool => $clip->isPicture())->groupBy('card_id') as $card => $own) {
            if ($card === '') {
                continue;
            }
            $files = CardFile::query()->where('card_id', $card)->pluck('size_bytes', 'path');
            foreach ($own as $clip) {
                $sizes[$clip->id] = (int) array_sum(array_map(static fn(string $path): int => (int) ($files[$path] ?? 0), $clip->paths()));
            }
        }

        return $sizes;
    }

    /** @return array<int, string> by day: where its recordings lie, in a word */
    private function recordings(): array
    {
        return DB::table('clips')
            ->join('placements', 'placements.clip_id', '=', 'clips.id')
            ->where('clips.production_id', $this->production->id)
            ->where('clips.kind', 'sound')
            ->whereIn('clips.shoot_day_id', $this->clips->pluck('shoot_day_id')->unique())
            ->groupBy('clips.shoot_day_id')
            ->selectRaw(
                'clips.shoot_day_id AS day, SUM(CRC32(CONCAT_WS(" ", clips.id, placements.start_ticks, placements.drift_ppm))) AS word',
            )
            ->pluck('word', 'day')
            ->all();
    }

    /** Keeps what is new, or other than what was accepted; of the clips those that go, and those of takes that are told anew. */
    private function onlyNews(): void
    {
        $this->items = array_values(array_filter($this->items, fn(PackingItem $item): bool => $this->news($item) !== null));
        $clips = $takes = [];
        foreach ($this->items as $item) {
            $clips[$item->clip->id ?? 0] = true;
            $takes[$item->take->id ?? 0] = true;
        }
        $this->clips = $this->clips
            ->filter(
                static fn(Clip $clip): bool => isset($clips[$clip->id]) ||
                    $clip->parts->contains(static fn(TakePart $part): bool => isset($takes[$part->take_id])),
            )
            ->values();
    }

    /**
     * Where lists find a medium, from the package's own folder: in it, or in the package beside it that was accepted with it.
     *
     * @param  array<string, true>  $there  paths that are in this package
     */
    public function placeOf(string $key, array $there): ?string
    {
        $this->places ??= array_column($this->items, 'path', 'key');
        $own = $this->places[$key] ?? null;
        if ($own !== null) {
            return isset($there[$own]) ? $own : null;
        }
        $known = $this->choice->isSince ? $this->accepted[$key] ?? null : null;

        return $known === null ? null : "../$known[folder]/$known[path]";
    }

    /** @return 'new'|'changed'|'moved'|null null for what was accepted as it is */
    public function news(PackingItem $item): ?string
    {
        $known = $this->accepted[$item->key] ?? null;

        return match (true) {
            $known === null => 'new',
            $known['mark'] !== $item->mark => 'changed',
            $known['path'] !== $item->path => 'moved',
            default => null,
        };
    }

    /** @param  Collection<int, Clip>  $here */
    private function takes(Collection $here): void
    {
        if ($this->choice->lists === []) {
            return;
        }
        $ids = $this->clips
            ->flatMap(static fn(Clip $clip): array => $clip->isPicture() ? $clip->parts->pluck('take_id')->all() : [])
            ->unique()
            ->values();
        $names = [];
        $takes = Take::query()
            ->whereIn('id', $ids)
            ->with(['parts.clip.placement'])
            ->orderBy('sort_key')
            ->orderBy('id')
            ->get();
        $words = in_array('words', $this->choice->lists, true) ? WordsOut::stamps($takes->modelKeys()) : [];
        foreach ($takes as $take) {
            $parts = $take->parts->filter(static fn(TakePart $part): bool => $here->has($part->clip_id));
            $mark = self::mark([
                array_diff_key($take->getAttributes(), ['created_at' => 0, 'updated_at' => 0]),
                $parts
                    ->map(
                        static fn(TakePart $part): array => [
                            $part->clip_id,
                            $part->in_ticks,
                            $part->out_ticks,
                            $part->clip->placement?->start_ticks,
                        ],
                    )
                    ->all(),
                ...isset($words[$take->id]) ? [$words[$take->id]] : [],
            ]);
            $name = self::free(
                $names,
                'takes/' . PathTemplate::plain($take->scene) . '/' . PathTemplate::plain($take->setup . '-' . $take->take . $take->part),
            );
            $this->items[] = new PackingItem("takes:$take->ulid", $name, $mark, 4096, take: $take, name: $take->label());
        }
    }

    /**
     * The cuts that were chosen; with days or bins also those that show nothing but what goes along. Where cuts were chosen by name, no
     * draft goes along unasked.
     *
     * @param  Collection<int, Clip>  $here
     * @param  Collection<int, StoredSequence>  $chosen
     */
    private function cuts(Collection $here, Collection $chosen): void
    {
        if ($this->choice->lists === []) {
            return;
        }
        $names = [];
        foreach ($chosen->concat($this->covered($here, $chosen)) as $cut) {
            $this->items[] = new PackingItem(
                "cuts:$cut->ulid",
                self::free($names, 'cuts/' . PathTemplate::plain($cut->name)),
                self::mark([$cut->step, $cut->name]),
                400 * $cut->items,
                sequence: $cut,
                name: $cut->name,
            );
        }
    }

    /**
     * @param  Collection<int, Clip>  $here
     * @param  Collection<int, StoredSequence>  $chosen
     * @return Collection<int, StoredSequence>
     */
    private function covered(Collection $here, Collection $chosen): Collection
    {
        $choice = $this->choice;
        if (!$chosen->isEmpty() && $choice->days === [] && $choice->bins === [] && $choice->takes === [] && !$choice->isSince) {
            return new Collection();
        }
        $others = StoredSequence::query()
            ->where('production_id', $this->production->id)
            ->whereNull('removed_at')
            ->where('kind', '!=', SequenceKind::Received)
            ->whereNotIn('id', $chosen->pluck('id'))
            ->whereExists(static fn($query) => $query->from('sequence_uses')->whereColumn('sequence_uses.sequence_id', 'sequences.id'))
            ->latest('id')
            ->limit(200)
            ->get();
        $shown = DB::table('sequence_uses')
            ->whereIn('sequence_id', $others->pluck('id'))
            ->get(['sequence_id', 'clip_id'])
            ->groupBy('sequence_id');

        return $others->filter(
            static fn(StoredSequence $one): bool => ($shown[$one->id] ?? new Collection())->every(
                static fn(object $use): bool => $here->has($use->clip_id),
            ),
        );
    }

    /**
     * Bins that were chosen, and people's own as far as what lies in them goes along; each as it is now.
     *
     * @param  Collection<int, Clip>  $here
     */
    private function bins(Collection $here, BinRows $bins, BinTree $tree): void
    {
        if (!in_array('otio', $this->choice->lists, true)) {
            return;
        }
        $known = [];
        $listed = $tree->forHandoff($this->production);
        foreach ([...array_merge(...array_column($listed['groups'], 'bins')), ...$listed['own']] as $bin) {
            $known[$bin['key']] = $bin['name'];
        }
        $keys = array_unique([...$this->choice->bins, ...array_column($listed['own'], 'key')]);
        $names = [];
        foreach ($keys as $key) {
            $ids = array_values(array_filter($bins->clipIds($this->production, $key), static fn(int $id): bool => $here->has($id)));
            if ($ids === []) {
                continue;
            }
            $name = $known[$key] ?? ucfirst(str_replace(':', ' ', $key));
            $this->items[] = new PackingItem(
                "bins:$key",
                self::free($names, 'bins/' . PathTemplate::plain($name)),
                self::mark([$name, $ids]),
                400 * count($ids),
                bin: $key,
                name: $name,
            );
        }
    }

    /** @param  array<string, true>  $taken */
    private static function free(array &$taken, string $path): string
    {
        for ($number = 1; ; $number++) {
            $name = $number === 1 ? $path : "{$path}_$number";
            if (!isset($taken[mb_strtolower($name)])) {
                $taken[mb_strtolower($name)] = true;

                return $name;
            }
        }
    }

    /** @param  array<mixed>  $facts */
    private static function mark(array $facts): string
    {
        return substr(hash('xxh128', (string) json_encode($facts)), 0, 16);
    }

    public function bytes(): int
    {
        return array_sum(array_map(static fn(PackingItem $item): int => $item->bytes, $this->items));
    }
}
