<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Cards\CardReport;
use App\Domain\Footage\ClipMedia;
use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Footage\Stores;
use App\Domain\Reports\Reports;
use App\Domain\Sequences\HeardUnder;
use App\Domain\Sequences\SoundPiece;
use App\Domain\Tasks\Room;
use App\Domain\Tasks\TaskRun;
use App\Models\CardFile;
use App\Models\Clip;
use App\Models\Handoff;
use App\Models\Look;
use App\Models\ScreeningNote;
use App\Models\ShootDay;
use App\Support\OwnFolder;
use App\Support\Problem;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Exchange\CsvWriter;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Process;
use Cartella\Core\Time\Ticks;
use Illuminate\Database\Eloquent\Collection as EloquentCollection;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\Log;

/**
 * A package on the editing team's drive: media, takes, cuts and bins as lists, log, looks, reports, a page that explains it, and a
 * manifest over all of it. Written in a hidden folder, where a run that was stopped goes on, and given its name when it is whole.
 */
final class Package
{
    public function __construct(
        private readonly Stores $stores,
        private readonly PackingPlans $plans,
        private readonly PackageLists $lists,
        private readonly MixedProxy $mixed,
        private readonly Reports $reports,
        private readonly CardReport $cards,
        private readonly PackageReadme $readme,
    ) {}

    /** Says in a package whose it is, so that a run that was killed after it was delivered knows its own. */
    private const LABEL = 'package.json';

    /** Bytes beside the media: lists, log, reports, manifest. */
    private const BESIDE = 64 << 20;

    /** Clips of a day whose reports are pages with pictures; of more they are tables, which take no memory to speak of. */
    private const PRINTED = 400;

    /** Reports of a day, by their kind, as the package calls them. */
    private const REPORTS = ['camera' => 'camera report', 'sound' => 'sound report', 'daily' => 'daily log'];

    private PackingPlan $plan;

    private PackedFiles $files;

    /** @var array<string, true> paths that this run put there, or found there whole */
    private array $wanted = [];

    /** @var list<string> pictures that go with their own sound, since their recording could not be reached */
    private array $unmixed = [];

    /** @var list<string> */
    private array $unmixedKeys = [];

    /** @var list<string> clips no file of which could be reached */
    private array $missing = [];

    /** @return array{files: int, bytes: int, clips: int, reel: string|null, missing: list<string>, unmixed: list<string>,
     *     days: list<string>, takes: int, cuts: int, bins: int} as counted from what lies in the package */
    public function write(Handoff $handoff, TaskRun $run): array
    {
        $this->unmixed = $this->unmixedKeys = $this->missing = $this->wanted = [];
        $delivery = Delivery::of($handoff);
        $choice = PackageChoice::fromArray($handoff->chosen);
        $this->plan = $this->plans->ofNow($handoff->production, $choice);
        if ($delivery->isThere()) {
            $label = self::label($delivery->read(self::LABEL));
            if (($label['handoff'] ?? null) !== $handoff->ulid) {
                throw self::inTheWay();
            }

            return $this->summary($delivery->list(), $label);
        }
        // Made, but not sent to its end.
        if (!is_dir($delivery->folder())) {
            $this->make($handoff, $delivery, $run);
        } elseif ((self::label($delivery->folder() . '/' . self::LABEL)['handoff'] ?? null) !== $handoff->ulid) {
            throw self::inTheWay();
        }
        $summary = $this->summary(
            iterator_to_array(FolderWalk::of($delivery->folder())),
            self::label($delivery->folder() . '/' . self::LABEL),
        );
        $delivery->send(static function (string $path) use ($run): void {
            $run->at($run->task->done, (int) $run->task->done_bytes, 'Sent: ' . basename($path));
        });

        return $summary;
    }

    private function make(Handoff $handoff, Delivery $delivery, TaskRun $run): void
    {
        $final = $delivery->folder();
        $work = $delivery->work($handoff->ulid);
        app(Room::class)->need([dirname($final) => self::BESIDE + max(0, $this->plan->bytes() - self::sizeOf($work))]);
        if (!is_dir($work)) {
            OwnFolder::make($work);
        }
        $count = count($this->plan->items);
        $papers = 4 + count(self::REPORTS) * $this->plan->days->count();
        $run->expect($count + $papers, $this->plan->bytes());
        $done = 0;
        $now = '';
        $this->files = new PackedFiles($work, static function (int $bytes) use ($run, &$done, &$now): void {
            $run->at($done, $bytes, $now, $bytes);
        });
        (new EloquentCollection($this->plan->clips->all()))->loadMissing(['markers.user', 'subclips']);
        $here = $this->plan->clips->keyBy('id');
        $hashes = $this->hashes();
        $this->lists->hashes = array_map(static fn(string $hash): string => "xxh128:$hash", $hashes);
        foreach ($this->plan->items as $item) {
            $now = $item->name !== '' ? $item->name : basename($item->path);
            $run->at($done, $this->files->bytes, $now);
            if ($item->clip !== null) {
                $this->medium($item, $hashes[$item->clip->ulid] ?? null);
            } else {
                foreach ($this->lists->of($item, $this->plan, $here, $this->pathOf(...)) as $path => $text) {
                    $this->text($path, $text);
                }
            }
            $done++;
        }
        $this->papers($handoff, static function (string $what) use ($run, &$done): void {
            $run->at($done++, now: $what);
        });
        $entries = $this->files->settle($this->wanted);
        Manifest::write($work, $entries, 'transfer', HashAlgorithm::Xxh128, now()->getTimestamp(), basename($final));
        // Before it is delivered, so that a run that is killed behind that leaves nothing to be said.
        $handoff->update(['packing' => $this->kept()]);
        @unlink($work . '/' . OwnFolder::MARKER);
        // rename() would take the place of an empty folder that somebody made meanwhile.
        if (file_exists($final) || !@rename($work, $final)) {
            file_put_contents($work . '/' . OwnFolder::MARKER, '');
            throw self::inTheWay();
        }
    }

    /** Takes away what a run that is not to go on has begun. */
    public static function abandon(Handoff $handoff): void
    {
        rescue(static fn() => OwnFolder::remove(Delivery::of($handoff)->work($handoff->ulid)));
        rescue(static fn() => Delivery::of($handoff)->abandon());
    }

    /** @return array<string, array{string, string}> what went, by key: what could not be reached is new the next time */
    private function kept(): array
    {
        $kept = [];
        foreach ($this->plan->items as $item) {
            if ($item->clip === null || isset($this->wanted[$item->path])) {
                // With the camera's sound only it is another one than it should be.
                $kept[$item->key] = [$item->path, $item->mark . (in_array($item->key, $this->unmixedKeys, true) ? ' unmixed' : '')];
            }
        }

        return $kept;
    }

    private static function inTheWay(): Problem
    {
        return Problem::refused('handoff.there', 'A package of that name lies in the inbox already.', 'Move it away and hand off again.');
    }

    private static function sizeOf(string $folder): int
    {
        $bytes = 0;
        foreach (is_dir($folder) ? FolderWalk::of($folder) : [] as $facts) {
            $bytes += $facts['type'] === 'file' ? $facts['size'] : 0;
        }

        return $bytes;
    }

    /** @return array<string, string> xxh128 of the clips' files as their cards have them, by the clips' ULIDs; of one file each */
    private function hashes(): array
    {
        $hashes = [];
        foreach ($this->plan->clips->whereNotNull('card_id')->groupBy('card_id') as $card => $own) {
            $known = CardFile::query()
                ->where('card_id', $card)
                ->where('algorithm', 'xxh128')
                ->whereNotNull('verified_at')
                ->pluck('hash', 'path');
            foreach ($own as $clip) {
                if (count($clip->paths()) === 1 && isset($known[$clip->path])) {
                    $hashes[$clip->ulid] = $known[$clip->path];
                }
            }
        }

        return $hashes;
    }

    /** Where lists find a clip, or one channel of it; null for what does not go along. */
    private function pathOf(Clip $clip, ?int $channel = null): ?string
    {
        $part = match (true) {
            $clip->import_kind !== null => 'imports',
            $clip->isSound() => 'sound',
            $this->plan->choice->hasProxies() => 'proxies',
            default => 'originals',
        };
        foreach (["$part:$clip->ulid", ...$channel === null ? [] : ["$part:$clip->ulid:$channel"]] as $key) {
            $place = $this->plan->placeOf($key, $this->wanted);
            if ($place !== null) {
                return $place;
            }
        }

        return null;
    }

    private function text(string $path, string $text): void
    {
        $this->files->text($path, $text);
        $this->wanted[$path] = true;
    }

    /** @param  string|null  $hash  what the card says of the clip's one file */
    private function medium(PackingItem $item, ?string $hash): void
    {
        $clip = $item->clip ?? throw new \LogicException('A medium is of a clip.');
        // Of a recording of several files each is looked at by itself.
        if ($item->part() !== 'originals' && $this->files->has($item->path, $item->mark)) {
            $this->wanted[$item->path] = true;

            return;
        }
        try {
            $this->bring($item, $clip, $hash);
            $this->wanted[$item->path] = true;
        } catch (Problem $away) {
            Log::warning($away->getMessage(), ['clip' => $clip->ulid]);
            $this->missing[] = $clip->name;
        }
    }

    /** @throws Problem if no file of it can be reached */
    private function bring(PackingItem $item, Clip $clip, ?string $hash): void
    {
        $part = $item->part();
        if ($part === 'proxies') {
            $this->proxy($item, $clip);

            return;
        }
        if ($part === 'originals') {
            $files = $this->stores->filesOf($clip);
            foreach ($files as $number => $file) {
                $path = $number === 0 ? $item->path : dirname($item->path) . '/' . basename($file);
                if (!$this->files->has($path, $item->mark)) {
                    $this->files->copy($file, $path, $item->mark, count($files) === 1 ? $hash : null);
                }
                $this->wanted[$path] = true;
            }

            return;
        }
        $file = $clip->isSound() ? ClipMedia::soundFile($clip, $this->stores) : $this->stores->fileOf($clip);
        if (!is_file($file)) {
            throw Problem::missing('The recording', 'Mount its volume and hand off again.');
        }
        if ($item->channel === null) {
            $this->files->copy($file, $item->path, $item->mark, $clip->isSound() && count($clip->paths()) === 1 ? $hash : null);

            return;
        }
        $filter = $item->channel === 0 ? MixedProxy::mix(HeardUnder::usual($clip)) : sprintf('pan=mono|c0=c%d', $item->channel - 1);
        $this->files->made($item->path, $item->mark, static function (string $target) use ($clip, $file, $filter): ?string {
            self::ffmpeg(
                [
                    ...Ffmpeg::input($file),
                    '-map',
                    '0:a:0',
                    '-af',
                    $filter,
                    '-c:a',
                    'pcm_s24le',
                    ...self::began($clip),
                    '-rf64',
                    'auto',
                    '-f',
                    'wav',
                    $target,
                ],
                $clip,
            );

            return null;
        });
    }

    /** @return list<string> where a recording's first sample lies since midnight, as broadcast WAV says it (EBU Tech 3285) */
    private static function began(Clip $clip): array
    {
        return $clip->start_ticks === null
            ? []
            : ['-write_bext', '1', '-metadata', 'time_reference=' . Ticks::toSamples($clip->start_ticks, (int) $clip->sample_rate)];
    }

    private function proxy(PackingItem $item, Clip $clip): void
    {
        $proxy = MediaFolder::of($clip)->read(MediaFile::Proxy);
        if (!is_file($proxy)) {
            throw Problem::missing('The proxy', 'Make it again on the clip\'s page.');
        }
        /** @var list<SoundPiece> $pieces */
        $pieces = $this->plan->choice->mixes ? MixedProxy::piecesOf($clip) : [];
        if ($pieces !== []) {
            try {
                $this->files->made($item->path, $item->mark, function (string $target) use ($clip, $pieces): ?string {
                    $this->mixed->write($clip, $pieces, $target);

                    return null;
                });

                return;
            } catch (Problem $away) {
                // A recording whose copies cannot be reached now keeps no picture out of the package; the camera's own sound goes with it.
                Log::warning($away->getMessage(), ['clip' => $clip->ulid]);
                $this->unmixed[] = $clip->name;
                $this->unmixedKeys[] = $item->key;
            }
        }
        $this->files->copy($proxy, $item->path, $item->mark);
    }

    /** @param  list<string>  $arguments */
    private static function ffmpeg(array $arguments, Clip $clip): void
    {
        $run = Process::run([...Ffmpeg::command(), ...$arguments], null, 6 * 3600);
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $clip->name, $run['error']);
        }
    }

    /** @param  callable(string): void  $begun */
    private function papers(Handoff $handoff, callable $begun): void
    {
        $clips = $this->plan->clips;
        $begun('Log');
        [$heading, $rows] = PackageLog::table($clips, $handoff, $this->plan->paths, $this->plan->choice->columns);
        $this->text('log.csv', CsvWriter::write($heading, $rows));
        $this->files->made('log.xlsx', $handoff->ulid, static function (string $target) use ($heading, $rows): ?string {
            PackageLog::workbook($target, $heading, $rows);

            return null;
        });
        $this->wanted['log.xlsx'] = true;
        foreach (['markers' => PackagePieces::markers(...), 'subclips' => PackagePieces::subclips(...)] as $name => $table) {
            $text = $table($clips, $handoff->production, $this->plan->paths);
            if ($text !== null) {
                $this->text("$name.csv", $text);
            }
        }
        $reels = $this->lists->shortReels();
        if ($reels !== null) {
            $this->text('reels.csv', $reels);
        }
        $this->looks($clips);
        $this->reports($begun);
        $begun('What this is');
        $this->text('reports/open points.csv', PackageReadme::points($handoff));
        $this->text('reports/open points.pdf', PackageReadme::pointsPdf($handoff));
        $this->files->made('README.pdf', $handoff->ulid, function (string $target) use ($handoff): ?string {
            file_put_contents($target, $this->readme->pdf($handoff, $this->plan, $this->plans->summary($this->plan)));

            return null;
        });
        $this->wanted['README.pdf'] = true;
        $this->text(
            self::LABEL,
            json_encode(
                [
                    'handoff' => $handoff->ulid,
                    'production' => $handoff->production->name,
                    'number' => $handoff->number,
                    'title' => $handoff->title,
                    'unmixed' => $this->unmixed,
                    'missing' => $this->missing,
                    'waived' => $this->plan->choice->waived,
                ],
                JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
            ) . "\n",
        );
    }

    /** @return array<string, mixed> what a package says of itself */
    private static function label(?string $file): array
    {
        $label = $file === null ? null : json_decode((string) @file_get_contents($file), true);

        return is_array($label) ? $label : [];
    }

    /**
     * @param  array<string, array{type: string, size: int}>  $there
     * @param  array<string, mixed>  $label
     * @return array{files: int, bytes: int, clips: int, reel: string|null, missing: list<string>, unmixed: list<string>,
     *     days: list<string>, takes: int, cuts: int, bins: int}
     */
    private function summary(array $there, array $label): array
    {
        $files = array_filter($there, static fn(array $facts): bool => $facts['type'] === 'file');
        $of = fn(string $part): array => array_values(
            array_filter($this->plan->items, static fn(PackingItem $item): bool => $item->part() === $part),
        );

        return [
            'files' => count($files),
            'bytes' => array_sum(array_column($files, 'size')),
            'clips' => $this->plan->clips->count(),
            'reel' => $of('cuts')[0]->name ?? null,
            'missing' => $label['missing'] ?? [],
            'unmixed' => $label['unmixed'] ?? [],
            'days' => $this->plan->days->pluck('ulid')->all(),
            'takes' => count($of('takes')),
            'cuts' => count($of('cuts')),
            'bins' => count($of('bins')),
        ];
    }

    /** @param  Collection<int, Clip>  $clips */
    private function looks(Collection $clips): void
    {
        $looks = [];
        foreach ($clips as $clip) {
            $look = Look::of($clip);
            if ($look !== null) {
                $looks[$look->name] = $look->cdl();
            }
        }
        if ($looks !== []) {
            $this->text('looks.ccc', Cdl::collection($looks));
        }
    }

    /**
     * What was rolled, heard and logged on each day, and what was said of the cuts, to print.
     *
     * @param  callable(string): void  $begun
     */
    private function reports(callable $begun): void
    {
        foreach ($this->plan->days as $day) {
            foreach (self::REPORTS as $what => $called) {
                $begun("Day $day->number, $called");
                $isLong = $what !== 'daily' && $day->clips()->count() > self::PRINTED;
                $this->text(
                    "reports/Day $day->number, $called" . ($isLong ? '.csv' : '.pdf'),
                    $isLong ? $this->cards->csv($day, null, $what) : $this->reports->make($what, $day, null),
                );
            }
        }
        $begun('Screening notes');
        foreach ($this->plan->items as $item) {
            $day = $item->sequence->day ?? $this->plan->days->first();
            if ($item->sequence !== null && $day instanceof ShootDay && $this->isNoted($item->sequence->id)) {
                $name = basename($item->path);
                $this->text("reports/screening notes, $name.pdf", $this->reports->make('screening', $day, null, $item->sequence->ulid));
            }
        }
    }

    private function isNoted(int $sequence): bool
    {
        return ScreeningNote::query()->where('sequence_id', $sequence)->exists();
    }
}
