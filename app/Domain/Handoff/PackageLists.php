<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Bins\BinRows;
use App\Domain\Sequences\ClipSource;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\SequenceStore;
use App\Domain\Words\WordsOut;
use App\Models\Clip;
use App\Models\Look;
use App\Models\Take;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Exchange\Aaf\AafWriter;
use Cartella\Core\Exchange\CsvWriter;
use Cartella\Core\Exchange\Edl\EdlWriter;
use Cartella\Core\Exchange\Edl\ShortReels;
use Cartella\Core\Exchange\Otio\OtioWriter;
use Illuminate\Support\Collection;

/** The lists of a package: takes with every angle and the recorder's channels, cuts, bins; in the formats that were chosen. */
final class PackageLists
{
    /** Items of a cut that is written as AAF: its objects are in memory at once, and a worker has 512 MB. */
    private const MOST_IN_AAF = 8000;

    /** @var array<string, string> short reels that any list had to use, by the whole name */
    private array $short = [];

    /** @var array<string, string> of the clips' files, by the clips' ULIDs */
    public array $hashes = [];

    /** @var Collection<string, Clip> what goes along, by ULID */
    private Collection $known;

    public function __construct(
        private readonly SequenceStore $store,
        private readonly ExchangeSequence $exchange,
        private readonly BinRows $bins,
    ) {}

    /**
     * @param  Collection<int, Clip>  $here  by id
     * @param  callable(Clip, int|null): (string|null)  $pathOf  where a clip's media lie in the package, or one channel of them
     * @return array<string, string> texts by their path
     */
    public function of(PackingItem $item, PackingPlan $plan, Collection $here, callable $pathOf): array
    {
        $this->known ??= $here->keyBy('ulid');
        // Addresses in a list lead from the list's own folder.
        $up = str_repeat('../', substr_count($item->path, '/'));
        $path = static function (Clip $clip, ?int $channel = null) use ($up, $pathOf): ?string {
            $lies = $pathOf($clip, $channel);

            return $lies === null ? null : $up . $lies;
        };

        return match ($item->part()) {
            'takes' => $this->take($item, $plan->choice, $here, $path),
            'cuts' => $this->cut($item, $plan->choice, $here, $path),
            'bins' => $this->bin($item, $plan, $here, $path),
            default => [],
        };
    }

    /** The table of short reels, for those who open an edit list; null where none was needed. */
    public function shortReels(): ?string
    {
        $rows = [];
        foreach ($this->short as $reel => $short) {
            $rows[] = [$short, (string) $reel];
        }

        return $rows === [] ? null : CsvWriter::write(['Short reel', 'Reel'], $rows);
    }

    /**
     * @param  Collection<int, Clip>  $here
     * @param  callable(Clip, int|null=): (string|null)  $path
     * @return array<string, string>
     */
    private function take(PackingItem $item, PackageChoice $choice, Collection $here, callable $path): array
    {
        $made = $item->take === null ? null : TakeSequence::of($item->take, $here, $path);
        if ($made === null) {
            return [];
        }
        $texts = $this->written($made['sequence'], $item->path, array_values(array_diff($choice->lists, ['edl', 'words'])));
        foreach (in_array('edl', $choice->lists, true) ? $made['angles'] : [] as $angle => $alone) {
            $texts += $this->written($alone, count($made['angles']) === 1 ? $item->path : "{$item->path}_$angle", ['edl']);
        }

        return $texts + (in_array('words', $choice->lists, true) && $item->take !== null ? self::words($item->take, $item->path) : []);
    }

    /**
     * What is said in a take, as text and as subtitles over its own time.
     *
     * @return array<string, string> nothing where nobody has listened to it
     */
    private static function words(Take $take, string $path): array
    {
        ['clip' => $clip, 'words' => $words, 'from' => $from] = WordsOut::ofTake($take);
        $texts = [];
        foreach ($words === [] ? [] : WordsOut::FORMATS as $format) {
            $texts["$path.$format"] = WordsOut::file($format, $words, $clip, $from);
        }

        return $texts;
    }

    /**
     * @param  Collection<int, Clip>  $here
     * @param  callable(Clip, int|null=): (string|null)  $path
     * @return array<string, string>
     */
    private function cut(PackingItem $item, PackageChoice $choice, Collection $here, callable $path): array
    {
        $stored = $item->sequence;
        if ($stored === null) {
            return [];
        }
        $sequence = $this->exchange->of(
            Playlist::of($stored, $this->store->read($stored)),
            static fn(Clip $clip): ?string => $here->has($clip->id) ? $path($clip) : null,
        );

        return $this->written($sequence, $item->path, $choice->lists);
    }

    /**
     * @param  Collection<int, Clip>  $here
     * @param  callable(Clip, int|null=): (string|null)  $path
     * @return array<string, string>
     */
    private function bin(PackingItem $item, PackingPlan $plan, Collection $here, callable $path): array
    {
        $rate = $plan->production->rate();
        $items = [];
        foreach ($this->bins->clipIds($plan->production, (string) $item->bin) as $id) {
            $clip = $here[$id] ?? null;
            if ($clip === null || (int) $clip->duration_ticks <= 0) {
                continue;
            }
            $source = ClipSource::of($clip, $rate, $path($clip));
            $items[] = new Item(
                $clip->title(),
                $source,
                0,
                $source->durationTicks,
                0,
                markers: ExchangeSequence::markersOf($clip, 0, $source->durationTicks),
                metadata: ExchangeSequence::facts($clip->take),
                look: Look::of($clip)?->cdl(),
            );
        }

        return ["$item->path.otio" => OtioWriter::collection($item->name, $items, $rate, ['production' => $plan->production->name])];
    }

    /**
     * @param  list<string>  $formats
     * @return array<string, string>
     */
    private function written(Sequence $sequence, string $path, array $formats): array
    {
        $texts = [];
        $sequence = $this->marked($sequence);
        if (in_array('otio', $formats, true)) {
            $texts["$path.otio"] = OtioWriter::write($sequence);
        }
        if (in_array('edl', $formats, true)) {
            foreach (EdlWriter::write($sequence) as $index => $text) {
                $texts[$path . ($index === 0 ? '' : '_' . ($index + 1)) . '.edl'] = $text;
            }
            foreach (ShortReels::of($sequence) as $reel => $short) {
                if ((string) $reel !== $short) {
                    $this->short[$reel] = $short;
                }
            }
        }
        if (in_array('aaf', $formats, true) && self::items($sequence) <= self::MOST_IN_AAF) {
            $texts["$path.aaf"] = AafWriter::write([$sequence], [], $sequence->rate, now()->getTimestamp(), $this->media($sequence));
        }

        return $texts;
    }

    private static function items(Sequence $sequence): int
    {
        return array_sum(array_map(static fn(Track $track): int => count($track->items), $sequence->tracks));
    }

    /** The same with each file's hash from its card, by which it is found when it comes back. */
    private function marked(Sequence $sequence): Sequence
    {
        $changed = [];
        foreach ($sequence->tracks as $number => $track) {
            $changed[$number] = array_map(
                fn(Item $item): Item => isset($this->hashes[$item->source->id])
                    ? $item->with(metadata: ['hash' => $this->hashes[$item->source->id]] + $item->metadata)
                    : $item,
                $track->items,
            );
        }

        return $sequence->with($changed);
    }

    /** @return array<string, array{width?: int, height?: int, channels?: int, sample_rate?: int, bits?: int}> by the clips' ULIDs */
    private function media(Sequence $sequence): array
    {
        $known = [];
        foreach ($sequence->tracks as $track) {
            foreach ($track->items as $item) {
                $clip = $this->known[$item->source->id] ?? null;
                if ($clip !== null) {
                    $known[$clip->ulid] ??= array_filter(
                        [
                            'width' => (int) ($clip->facts['width'] ?? 0),
                            'height' => (int) ($clip->facts['height'] ?? 0),
                            'channels' => count($clip->channels ?? []),
                            'sample_rate' => (int) $clip->sample_rate,
                        ],
                        static fn(int $value): bool => $value > 0,
                    );
                }
            }
        }

        return $known;
    }
}
