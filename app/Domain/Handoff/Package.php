<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Bins\BinTree;
use App\Domain\Cards\ClipMedia;
use App\Domain\Cards\Stores;
use App\Domain\Tasks\TaskRun;
use App\Models\Clip;
use App\Models\Handoff;
use App\Models\Look;
use App\Models\Reel;
use App\Models\ShootDay;
use App\Support\Clock;
use App\Support\Problem;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Custody\ManifestEntry;
use Cartella\Core\Exchange\CsvWriter;
use Cartella\Core\Exchange\EdlWriter;
use Cartella\Core\Exchange\OtioWriter;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\File;

/**
 * A package on the editing team's drive: proxies, production sound, the reel as OTIO and EDL, the log as CSV, and a
 * manifest over all of it. Written in a hidden folder and given its name when it is whole.
 */
final class Package
{
    public function __construct(private readonly Stores $stores, private readonly ReelSequence $sequences, private readonly BinTree $bins)
    {
    }

    /** @return array{files: int, bytes: int, clips: int, reel: string|null, missing: list<string>} */
    public function write(Handoff $handoff, TaskRun $run): array
    {
        $final = config('cartella.inbox').'/'.$handoff->folder;
        $work = dirname($final).'/.'.basename($final).'.part';
        if (is_dir($final)) {
            throw Problem::refused('handoff.there', 'A package of that name lies in the inbox already.', 'Move it away and hand off again.');
        }
        File::deleteDirectory($work); // from a run that was stopped
        foreach (['proxies', 'sound', 'imports'] as $folder) {
            if (! @mkdir($work.'/'.$folder, 0775, true)) {
                throw UnableToReadMedia::missing($work);
            }
        }
        $days = ShootDay::query()->where('production_id', $handoff->production_id)->whereIn('ulid', $handoff->chosen['days'])->orderBy('number')->get();
        $clips = MakeHandoff::clips($handoff->production, $days->pluck('id')->all(), $handoff->chosen['bins'], $this->bins);
        $run->expect($clips->count() + 1);
        $missing = [];
        foreach ($clips as $done => $clip) {
            $run->at($done, now: $clip->name);
            if (! $this->add($clip, $work)) {
                $missing[] = $clip->name;
            }
        }
        file_put_contents($work.'/log.csv', $this->log($clips, $handoff));
        $looks = [];
        foreach ($clips as $clip) {
            $look = Look::of($clip);
            if ($look !== null) {
                $looks[$look->name] = $look->cdl();
            }
        }
        if ($looks !== []) {
            file_put_contents($work.'/looks.ccc', Cdl::collection($looks));
        }
        $reel = $days->isEmpty() ? null : Reel::query()->whereIn('shoot_day_id', $days->pluck('id'))->latest('id')->first();
        if ($reel !== null) {
            $sequence = $this->sequences->of($reel, self::pathOf(...));
            file_put_contents($work.'/reel.otio', OtioWriter::write($sequence));
            foreach (EdlWriter::write($sequence) as $index => $text) {
                file_put_contents($work.'/reel'.($index === 0 ? '' : '_'.($index + 1)).'.edl', $text);
            }
        }
        foreach (['proxies', 'sound', 'imports'] as $folder) {
            @rmdir($work.'/'.$folder); // goes only when it is empty
        }
        $entries = $this->entries($work);
        Manifest::write($work, $entries, 'transfer', HashAlgorithm::Xxh128, now()->getTimestamp());
        rename($work, $final);

        return ['files' => count($entries), 'bytes' => array_sum(array_map(static fn (ManifestEntry $entry): int => $entry->sizeBytes, $entries)), 'clips' => $clips->count(), 'reel' => $reel?->name, 'missing' => $missing];
    }

    public static function pathOf(Clip $clip): string
    {
        return match (true) {
            $clip->import_kind !== null => 'imports/'.ReelSequence::fileName($clip, pathinfo($clip->path, PATHINFO_EXTENSION)),
            $clip->isSound() => 'sound/'.ReelSequence::fileName($clip, 'wav'),
            default => 'proxies/'.ReelSequence::fileName($clip, 'mp4'),
        };
    }

    /** Recordings of sound and imports go as they are, pictures as proxies with the recorder's sound where there is any. */
    private function add(Clip $clip, string $work): bool
    {
        $folder = ClipMedia::folder($clip);
        $source = $clip->isPicture() && $clip->import_kind === null
            ? (is_file($folder.'/synced.mp4') && $clip->sound_synced_at !== null ? $folder.'/synced.mp4' : $folder.'/proxy.mp4')
            : $this->original($clip);
        $target = $work.'/'.self::pathOf($clip);
        if ($source === null || ! is_file($source)) {
            return false;
        }
        if (! @copy($source, $target) || hash_file('xxh128', $source) !== hash_file('xxh128', $target)) {
            throw UnableToReadMedia::program('The copy', $target, 'the inbox is full or cannot be written');
        }

        return true;
    }

    private function original(Clip $clip): ?string
    {
        try {
            return $clip->isSound() ? ClipMedia::soundFile($clip, $this->stores) : $this->stores->fileOf($clip);
        } catch (Problem) {
            return null;
        }
    }

    /** @param  Collection<int, Clip>  $clips */
    private function log(Collection $clips, Handoff $handoff): string
    {
        $heading = ['Day', 'Scene', 'Setup', 'Take', 'Status', 'What happens', 'Size', 'Notes', 'Keywords', 'Marks', 'Screening notes', 'Not rolling', 'Take name', 'Clip', 'Original name', 'Device', 'Roll', 'Start timecode', 'Length', 'Placed by', 'Sure', 'File'];
        $sorted = $clips->sortBy(static fn (Clip $clip): array => [$clip->day->number, $clip->take->sort_key ?? '~', $clip->device->lane ?? 99, $clip->start_ticks])->values();

        return CsvWriter::write($heading, $sorted->map(static function (Clip $clip) use ($handoff): array {
            $rate = $clip->rate() ?? $handoff->production->rate();
            $take = $clip->take;

            return [
                $clip->day->number, $take?->scene, $take?->setup, $take === null ? null : ($take->part === '' ? $take->take : $take->take.$take->part), $take === null || $take->status === 'none' ? '' : $take->status, $take?->description, $take?->size, $take?->notes, $take?->keywords,
                $take === null ? '' : implode(', ', $take->marks()), $take?->takeNotes->pluck('text')->implode(' · '), implode(' ', $take->absent_devices ?? []), $take?->name,
                $clip->title(), $clip->name, $clip->device?->letter, $clip->card?->roll, Clock::label($clip->start_ticks, $rate), Clock::label($clip->duration_ticks, $rate),
                $clip->placement?->start_ticks === null ? '' : $clip->placement->way, $clip->placement?->start_ticks === null ? '' : $clip->placement->is_sure, self::pathOf($clip),
            ];
        })->all());
    }

    /** @return list<ManifestEntry> */
    private function entries(string $work): array
    {
        $entries = [];
        foreach (FolderWalk::of($work) as $path => $facts) {
            if ($facts['type'] === 'file') {
                $entries[] = new ManifestEntry((string) $path, $facts['size'], $facts['mtime'], HashAlgorithm::Xxh128, (string) hash_file('xxh128', $work.'/'.$path), 'original', now()->getTimestamp());
            }
        }

        return $entries;
    }
}
