<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Footage\Stores;
use App\Domain\Tasks\NoRoom;
use App\Domain\Tasks\Room;
use App\Domain\Tasks\StartTask;
use App\Domain\Tasks\TaskCancelled;
use App\Domain\Tasks\TaskLost;
use App\Domain\Tasks\TaskPaused;
use App\Domain\Tasks\TaskRun;
use App\Models\Card;
use App\Models\CardCopy;
use App\Models\CardFile;
use App\Models\Store;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\CartellaException;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\Offload;
use Cartella\Core\Custody\OffloadProgress;
use Cartella\Core\Custody\OffloadReport;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Collection;

/** Copies one card to every store with proof, then has it catalogued. Run again it goes on where it was stopped. */
final class CopyCardJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    private const ROWS = 200;

    public int $tries = 3;

    /** No limit in seconds: a card of a terabyte takes hours; a cancel or a kill ends it cleanly at any time. */
    public int $timeout = 0;

    /** @var array<string, array<string, mixed>> rows that are not in the database yet, by the hash of the path */
    private array $rows = [];

    public function __construct(public readonly int $taskId) {}

    public function handle(Readers $bench, Stores $stores, StartTask $start): void
    {
        TaskRun::of($this->taskId, function (TaskRun $run) use ($bench, $stores, $start): array {
            $card = Card::query()->findOrFail($run->task->subject['card']);
            try {
                return $this->copy($run, $card, $bench, $stores, $start);
            } catch (TaskCancelled $stop) {
                $this->write($card);
                $card->update(['state' => 'stopped']);
                Live::tell($card->production_id, Topic::Cards, ['card' => $card->ulid]);
                throw $stop;
            } catch (\Throwable $trouble) {
                $this->write($card);
                if ($trouble instanceof NoRoom || $trouble instanceof TaskPaused || TaskLost::isBehind($trouble)) {
                    throw $trouble;
                }
                $card->update([
                    'state' => 'fault',
                    'faults' => [
                        [
                            'path' => '',
                            'reason' =>
                                $trouble instanceof CartellaException || $trouble instanceof Problem
                                    ? $trouble->getMessage()
                                    : 'It stopped with an error; the log says which.',
                        ],
                    ],
                ]);
                Live::tell($card->production_id, Topic::Cards, ['card' => $card->ulid]);
                throw $trouble;
            }
        });
    }

    /** @return array<string, mixed> */
    private function copy(TaskRun $run, Card $card, Readers $bench, Stores $stores, StartTask $start): array
    {
        $dropped = Imports::sourceOf($card);
        if ($card->volume === '' && $dropped === null) {
            // Done before, by a worker that was killed when it was about to say so.
            return ['files' => $card->files, 'verified' => $card->verified_files, 'message' => 'It is copied already.'];
        }
        $card->update(['state' => 'copying']);
        $run->expect($card->files, $card->size_bytes);
        $wanted = $stores->chosenFor($card);
        $there = $wanted->filter(static fn(Store $store): bool => $store->isThere());
        if ($there->isEmpty()) {
            throw Problem::refused(
                'store.none',
                'None of the volumes that copies go to is there.',
                'Connect ' . $wanted->pluck('name')->implode(' or ') . ' and try again.',
            );
        }
        $place = Stores::placeOf($card->production, $card->day, $card->device, $card->roll, $card->load('copies'));
        $this->lookForRoom($card, $there, $place);
        $this->rows = [];
        $keys = $there->keys()->all();
        // Asked now: a volume that disappears meanwhile has no real path any more.
        $roots = $there->map(static fn(Store $store): string => (string) realpath($store->path))->all();
        $devices = $there->map(static fn(Store $store): ?int => $store->device())->all();
        $report = Offload::run(
            $dropped ?? $bench->path($card->production, $card->volume),
            $there->map(static fn(Store $store): string => rtrim($store->path . '/' . $place['below'], '/'))->values()->all(),
            resume: true,
            onFile: fn(array $file) => $this->note($card, $file),
            onProgress: static fn(OffloadProgress $at) => $run->at(
                $at->files,
                $at->bytes,
                ($at->step === 'copying' ? '' : 'reading back ') . $at->path,
                $at->copiedBytes,
                array_combine($keys, $at->verifiedBytes),
            ),
            name: $place['name'],
        );
        $this->write($card);
        if (in_array(Offload::BUSY, array_column($report->faults, 'reason'), true)) {
            // The worker that had this task lost the database, and has not noticed yet.
            throw new TaskLost('Another worker is still writing.');
        }
        $away = $wanted
            ->diffKeys($there)
            ->map(static fn(Store $store): array => ['path' => '', 'reason' => 'The volume is not there.', 'destination' => $store->name])
            ->values()
            ->all();
        $names = $there->map(static fn(Store $store): string => $store->name)->all();
        $faults = [...$away, ...array_map(static fn(array $fault): array => self::named($fault, $roots, $names), $report->faults)];
        $this->conclude($card, $report, $faults, $roots, $devices, ltrim($place['below'] . '/' . $place['name'], '/'));
        Live::tell($card->production_id, Topic::Cards, ['card' => $card->ulid]);
        if (CardFile::query()->where('card_id', $card->id)->where('copies', '>', 0)->exists()) {
            $start($card->production, null, 'catalogue', 'Catalogue ' . $card->roll, [
                'card' => $card->id,
                'day' => $run->task->subject['day'] ?? $card->shoot_day_id,
            ]);
        }

        return [
            'files' => $report->files,
            'verified' => $card->verified_files,
            'bytes' => $report->bytes,
            'faults' => count($faults),
            'message' => $faults === [] ? self::whole($card, $report, count($there)) : $this->sentence($faults[0], $card),
        ];
    }

    /**
     * @param  array<string, mixed>  $fault
     * @param  array<string, string>  $roots  of the stores, by key
     * @param  array<string, string>  $names  of the stores, by key
     * @return array<string, mixed> with the volume's name where the core says its folder
     */
    private static function named(array $fault, array $roots, array $names): array
    {
        foreach ($roots as $key => $root) {
            if (str_starts_with(($fault['destination'] ?? '') . '/', $root . '/')) {
                return ['destination' => $names[$key]] + $fault;
            }
        }

        return $fault;
    }

    /** @param  array<string, mixed>  $file */
    private function note(Card $card, array $file): void
    {
        $hash = hash('xxh128', $file['path']);
        $row = $this->rows[$hash] ?? [
            'card_id' => $card->id,
            'path' => mb_substr($file['path'], 0, 1024),
            'path_hash' => $hash,
            'size_bytes' => 0,
            'algorithm' => null,
            'hash' => null,
            'copies' => 0,
            'verified_at' => null,
            'fault' => null,
        ];
        if (isset($file['reason'])) {
            $row['fault'] = mb_substr((string) $file['reason'], 0, 300);
            $row['size_bytes'] = $file['bytes'] ?? $row['size_bytes'];
        }
        if (isset($file['copies'])) {
            $row =
                [
                    'size_bytes' => $file['bytes'],
                    'algorithm' => $file['algorithm'],
                    'hash' => $file['hash'],
                    'copies' => $file['copies'],
                    'verified_at' => $file['state'] === 'verified' ? now() : null,
                ] + $row;
        }
        $this->rows[$hash] = $row;
        if (count($this->rows) >= self::ROWS) {
            $this->write($card);
        }
    }

    /** In bundles: a statement per file would take longer than copying small ones. */
    private function write(Card $card): void
    {
        if ($this->rows === []) {
            return;
        }
        CardFile::query()->upsert(
            array_values($this->rows),
            ['card_id', 'path_hash'],
            ['path', 'size_bytes', 'algorithm', 'hash', 'verified_at', 'fault', 'copies'],
        );
        $this->rows = [];
    }

    /**
     * @param  list<array<string, mixed>>  $faults
     * @param  array<string, string>  $roots  of the stores that were there, by key
     * @param  array<string, int|null>  $devices
     */
    private function conclude(Card $card, OffloadReport $report, array $faults, array $roots, array $devices, string $path): void
    {
        foreach ($roots as $key => $root) {
            foreach ($report->manifests as $manifest) {
                if (str_starts_with($manifest, $root . '/')) {
                    CardCopy::query()->updateOrCreate(
                        ['card_id' => $card->id, 'store' => $key],
                        [
                            'path' => $path,
                            'device' => $devices[$key],
                            'read_from' =>
                                $this->readFrom($report, $root) ??
                                CardCopy::query()->where('card_id', $card->id)->where('store', $key)->value('read_from'),
                            'manifest' => basename($manifest),
                            'checked_at' => null,
                            'differences' => null,
                        ],
                    );
                }
            }
        }
        $twice = CardFile::query()->where('card_id', $card->id)->where('copies', '>=', 2)->count();
        $whole = $faults === [] && $report->verified === $report->files;
        $card->update([
            'state' => $whole ? 'verified' : 'fault',
            'files' => $report->files,
            'verified_files' => min($twice, $report->files),
            'size_bytes' => $report->bytes,
            'faults' => $faults === [] ? null : array_slice($faults, 0, 200),
            'verified_at' => $whole ? now() : null,
            'matched_files' => $report->matched,
        ]);
    }

    private function readFrom(OffloadReport $report, string $root): ?string
    {
        foreach ($report->readFrom as $destination => $from) {
            if (str_starts_with($destination . '/', $root . '/')) {
                return $from;
            }
        }

        return null;
    }

    private static function whole(Card $card, OffloadReport $report, int $places): string
    {
        return sprintf(
            '%d files verified %s.',
            $report->files,
            match ($places) {
                1 => 'once; the card needs a second copy',
                2 => 'twice',
                default => "in $places places",
            },
        ) . ($report->matched === 0 ? '' : sprintf(' %d are what the card itself says they are.', $report->matched));
    }

    /**
     * What an earlier run has verified lies there already.
     *
     * @param  Collection<string, Store>  $there
     * @param  array{below: string, name: string}  $place
     *
     * @throws NoRoom
     */
    private function lookForRoom(Card $card, Collection $there, array $place): void
    {
        $need = [];
        foreach ($there as $store) {
            $folder = rtrim($store->path . '/' . $place['below'], '/') . '/' . $place['name'];
            $has = 0;
            foreach (is_dir($folder) ? FolderWalk::of($folder) : [] as $facts) {
                $has += $facts['type'] === 'file' ? $facts['size'] : 0;
            }
            $need[$store->path] = max(0, $card->size_bytes - $has);
        }
        app(Room::class)->need($need);
    }

    /** @param  array<string, mixed>  $first */
    private function sentence(array $first, Card $card): string
    {
        $where = $first['path'] === '' ? $first['destination'] ?? 'A destination' : basename($first['path']);

        return sprintf('%s: %s %d of %d files are safe.', $where, $first['reason'], $card->verified_files, $card->files);
    }
}
