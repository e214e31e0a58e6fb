<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Bins\BinRows;
use App\Domain\Footage\ClipMedia;
use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Domain\Footage\Stores;
use App\Domain\Sequences\Playlist;
use App\Domain\Sequences\Recipes;
use App\Domain\Sequences\SequenceStore;
use App\Domain\Tasks\Room;
use App\Domain\Tasks\TaskRun;
use App\Models\Clip;
use App\Models\Handoff;
use App\Models\Look;
use App\Models\ShootDay;
use App\Models\StoredSequence;
use App\Support\Folders;
use App\Support\OwnFolder;
use App\Support\Problem;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Custody\ManifestEntry;
use Cartella\Core\Exchange\EdlWriter;
use Cartella\Core\Exchange\OtioWriter;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Illuminate\Database\Eloquent\Collection as EloquentCollection;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\Log;

/**
 * A package on the editing team's drive: proxies, production sound, the reel as OTIO and EDL, the log as CSV, and a
 * manifest over all of it. Written in a hidden folder and given its name when it is whole.
 */
final class Package
{
    public function __construct(
        private readonly Stores $stores,
        private readonly SequenceStore $sequences,
        private readonly Recipes $recipes,
        private readonly ExchangeSequence $exchange,
        private readonly BinRows $bins,
        private readonly MixedProxy $mixed,
    ) {}

    /** Says in a package whose it is, so that a run that was killed after it was delivered knows its own. */
    private const LABEL = 'package.json';

    /** Bytes beside the media: lists, log, manifest. */
    private const BESIDE = 16 << 20;

    private PackagePaths $paths;

    /** @var list<string> pictures that go with their own sound, since their recording could not be reached */
    private array $unmixed = [];

    /** @return array{files: int, bytes: int, clips: int, reel: string|null, missing: list<string>, unmixed: list<string>} as
     *     counted from what lies in the package */
    public function write(Handoff $handoff, TaskRun $run): array
    {
        $this->paths = new PackagePaths();
        $this->unmixed = [];
        $final = Folders::inbox($handoff->folder);
        $days = ShootDay::query()
            ->where('production_id', $handoff->production_id)
            ->whereIn('ulid', $handoff->chosen['days'])
            ->orderBy('number')
            ->get();
        $clips = MakeHandoff::clips($handoff->production, $days->pluck('id')->all(), $handoff->chosen['bins'], $this->bins);
        $reel = $handoff->production->reels()->whereIn('shoot_day_id', $days->pluck('id'))->latest('id')->first();
        foreach ($clips as $clip) {
            $this->paths->of($clip);
        }
        if (is_dir($final)) {
            $label = json_decode((string) @file_get_contents($final . '/' . self::LABEL), true);
            if (($label['handoff'] ?? null) !== $handoff->ulid) {
                throw Problem::refused(
                    'handoff.there',
                    'A package of that name lies in the inbox already.',
                    'Move it away and hand off again.',
                );
            }

            return $this->summary($final, $clips, $reel);
        }
        $work = dirname($final) . '/.' . $handoff->ulid . '.part';
        OwnFolder::remove($work); // from a run that was stopped
        $sources = $clips->mapWithKeys(fn(Clip $clip): array => [$clip->id => $this->sourceOf($clip)])->all();
        app(Room::class)->need([
            dirname($final) =>
                self::BESIDE +
                (int) array_sum(array_map(static fn(?string $file): int => $file === null ? 0 : (int) @filesize($file), $sources)),
        ]);
        OwnFolder::make($work);
        $run->expect($clips->count() + 1);
        foreach ($clips as $done => $clip) {
            $run->at($done, now: $clip->name);
            if ($sources[$clip->id] !== null) {
                $this->bring($clip, $sources[$clip->id], $work . '/' . $this->paths->of($clip));
            }
        }
        self::put($work . '/log.csv', PackageLog::csv($clips, $handoff, $this->paths));
        (new EloquentCollection($clips->all()))->loadMissing(['markers.user', 'subclips']);
        foreach (['markers' => PackagePieces::markers(...), 'subclips' => PackagePieces::subclips(...)] as $name => $table) {
            $text = $table($clips, $handoff->production, $this->paths);
            if ($text !== null) {
                self::put("$work/$name.csv", $text);
            }
        }
        $this->putLooks($clips, $work);
        $this->putReel($reel, $work);
        self::put(
            $work . '/' . self::LABEL,
            json_encode(
                [
                    'handoff' => $handoff->ulid,
                    'production' => $handoff->production->name,
                    'number' => $handoff->number,
                    'title' => $handoff->title,
                    'unmixed' => $this->unmixed,
                ],
                JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
            ) . "\n",
        );
        unlink($work . '/' . OwnFolder::MARKER);
        Manifest::write($work, $this->entries($work), 'transfer', HashAlgorithm::Xxh128, now()->getTimestamp(), basename($final));
        // rename() would take the place of an empty folder that somebody made meanwhile.
        if (file_exists($final) || !@rename($work, $final)) {
            file_put_contents($work . '/' . OwnFolder::MARKER, '');
            throw Problem::refused(
                'handoff.there',
                'A package of that name lies in the inbox already.',
                'Move it away and hand off again.',
            );
        }

        return $this->summary($final, $clips, $reel);
    }

    /**
     * @param  Collection<int, Clip>  $clips
     * @return array{files: int, bytes: int, clips: int, reel: string|null, missing: list<string>, unmixed: list<string>}
     */
    private function summary(string $folder, Collection $clips, ?StoredSequence $reel): array
    {
        $files = $bytes = 0;
        foreach (FolderWalk::of($folder) as $facts) {
            $files += (int) ($facts['type'] === 'file');
            $bytes += $facts['type'] === 'file' ? $facts['size'] : 0;
        }
        $missing = $clips
            ->reject(fn(Clip $clip): bool => is_file($folder . '/' . $this->paths->of($clip)))
            ->map(static fn(Clip $clip): string => $clip->name)
            ->values()
            ->all();

        return [
            'files' => $files,
            'bytes' => $bytes,
            'clips' => $clips->count(),
            'reel' => is_file($folder . '/reel.otio') ? $reel?->name : null,
            'missing' => $missing,
            'unmixed' => json_decode((string) @file_get_contents($folder . '/' . self::LABEL), true)['unmixed'] ?? [],
        ];
    }

    /** @param  Collection<int, Clip>  $clips */
    private function putLooks(Collection $clips, string $work): void
    {
        $looks = [];
        foreach ($clips as $clip) {
            $look = Look::of($clip);
            if ($look !== null) {
                $looks[$look->name] = $look->cdl();
            }
        }
        if ($looks !== []) {
            self::put($work . '/looks.ccc', Cdl::collection($looks));
        }
    }

    private function putReel(?StoredSequence $reel, string $work): void
    {
        if ($reel === null) {
            return;
        }
        $this->recipes->again($reel);
        $reel->refresh();
        $sequence = $this->exchange->of(
            Playlist::of($reel, $this->sequences->read($reel)),
            fn(Clip $clip): string => $this->paths->of($clip),
        );
        self::put($work . '/reel.otio', OtioWriter::write($sequence));
        foreach (EdlWriter::write($sequence) as $index => $text) {
            self::put($work . '/reel' . ($index === 0 ? '' : '_' . ($index + 1)) . '.edl', $text);
        }
    }

    /** Recordings of sound and imports go as they are, pictures as proxies with the recorder's sound where there is any. */
    private function bring(Clip $clip, string $source, string $target): void
    {
        $pieces = $clip->isPicture() && $clip->import_kind === null ? MixedProxy::piecesOf($clip) : [];
        if ($pieces === []) {
            self::copy($source, $target);

            return;
        }
        self::makeWay($target);
        try {
            $this->mixed->write($clip, $pieces, $target);
        } catch (Problem $away) {
            // A recording whose copies cannot be reached now keeps no picture out of the package; the camera's own sound goes with it.
            Log::warning($away->getMessage(), ['clip' => $clip->ulid]);
            $this->unmixed[] = $clip->name;
            self::copy($source, $target);
        }
    }

    private function sourceOf(Clip $clip): ?string
    {
        $source =
            $clip->isPicture() && $clip->import_kind === null ? MediaFolder::of($clip)->read(MediaFile::Proxy) : $this->original($clip);

        return $source !== null && is_file($source) ? $source : null;
    }

    private static function makeWay(string $target): void
    {
        if (!is_dir(dirname($target)) && !@mkdir(dirname($target), 0775)) {
            throw UnableToReadMedia::missing($target);
        }
        if (file_exists($target)) {
            throw UnableToReadMedia::program('The copy', $target, 'a file of that name is there already');
        }
    }

    private static function copy(string $source, string $target): void
    {
        self::makeWay($target);
        if (!@copy($source, $target) || hash_file('xxh128', $source) !== hash_file('xxh128', $target)) {
            throw UnableToReadMedia::program('The copy', $target, 'the inbox is full or cannot be written');
        }
    }

    private static function put(string $file, string $text): void
    {
        if (@file_put_contents($file, $text) !== strlen($text)) {
            throw UnableToReadMedia::program('The package', $file, 'the inbox is full or cannot be written');
        }
    }

    private function original(Clip $clip): ?string
    {
        try {
            return $clip->isSound() ? ClipMedia::soundFile($clip, $this->stores) : $this->stores->fileOf($clip);
        } catch (Problem) {
            return null;
        }
    }

    /** @return list<ManifestEntry> */
    private function entries(string $work): array
    {
        $entries = [];
        foreach (FolderWalk::of($work) as $path => $facts) {
            if ($facts['type'] === 'file') {
                $entries[] = new ManifestEntry(
                    (string) $path,
                    $facts['size'],
                    $facts['mtime'],
                    HashAlgorithm::Xxh128,
                    (string) hash_file('xxh128', $work . '/' . $path),
                    'original',
                    now()->getTimestamp(),
                );
            }
        }

        return $entries;
    }
}
