<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Tasks\StartTask;
use App\Domain\Tasks\TaskCancelled;
use App\Domain\Tasks\TaskLost;
use App\Domain\Tasks\TaskRun;
use App\Models\Card;
use App\Models\CardCopy;
use App\Models\CardFile;
use App\Support\Live;
use App\Support\Problem;
use Cartella\Core\CartellaException;
use Cartella\Core\Custody\Offload;
use Cartella\Core\Custody\OffloadProgress;
use Cartella\Core\Custody\OffloadReport;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

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

    public function __construct(public readonly int $taskId)
    {
    }

    public function handle(Bench $bench, Stores $stores, StartTask $start): void
    {
        TaskRun::of($this->taskId, function (TaskRun $run) use ($bench, $stores, $start): array {
            $card = Card::query()->findOrFail($run->task->subject['card']);
            try {
                return $this->copy($run, $card, $bench, $stores, $start);
            } catch (TaskCancelled $stop) {
                $this->write($card);
                $card->update(['state' => 'stopped']);
                Live::tell($card->production_id, 'cards', ['card' => $card->ulid]);
                throw $stop;
            } catch (\Throwable $trouble) {
                if (TaskLost::isBehind($trouble)) {
                    throw $trouble;
                }
                $card->update(['state' => 'fault', 'faults' => [['path' => '', 'reason' => $trouble instanceof CartellaException || $trouble instanceof Problem ? $trouble->getMessage() : 'It stopped with an error; the log says which.']]]);
                Live::tell($card->production_id, 'cards', ['card' => $card->ulid]);
                throw $trouble;
            }
        });
    }

    /** @return array<string, mixed> */
    private function copy(TaskRun $run, Card $card, Bench $bench, Stores $stores, StartTask $start): array
    {
        $run->expect($card->files, $card->size_bytes);
        $there = $stores->there();
        if ($there === []) {
            throw Problem::refused('store.none', 'None of the volumes that copies go to is there.', 'Connect '.implode(' or ', array_column($stores->all(), 'name')).' and try again.');
        }
        $place = Stores::placeOf($card->production, $card->day, $card->device, $card->roll, $card->load('copies'));
        $this->rows = [];
        $keys = array_keys($there);
        // Asked now: a volume that disappears meanwhile has no real path any more.
        $roots = array_map(static fn (array $store): string => (string) realpath($store['path']), $there);
        $report = Offload::run(
            $bench->path($card->volume),
            array_map(static fn (array $store): string => $store['path'].'/'.$place['below'], array_values($there)),
            resume: true,
            onFile: fn (array $file) => $this->note($card, $file),
            onProgress: static fn (OffloadProgress $at) => $run->at(
                $at->files, $at->bytes, ($at->step === 'copying' ? '' : 'reading back ').$at->path,
                $at->copiedBytes, array_combine($keys, $at->verifiedBytes),
            ),
            name: $place['name'],
        );
        $this->write($card);
        if (in_array(Offload::BUSY, array_column($report->faults, 'reason'), true)) {
            // The worker that had this task lost the database, and has not noticed yet.
            throw new TaskLost('Another worker is still writing.');
        }
        $away = array_map(static fn (array $store): array => ['path' => '', 'reason' => 'The volume is not there.', 'destination' => $store['name']], array_values(array_diff_key($stores->all(), $there)));
        $faults = [...$away, ...array_map(static fn (array $fault): array => self::named($fault, $roots, $there), $report->faults)];
        $this->conclude($card, $report, $faults, $roots, $place['below'].'/'.$place['name']);
        Live::tell($card->production_id, 'cards', ['card' => $card->ulid]);
        if (CardFile::query()->where('card_id', $card->id)->where('copies', '>', 0)->exists()) {
            $start($card->production, null, 'catalogue', 'Catalogue '.$card->roll, ['card' => $card->id, 'day' => $run->task->subject['day'] ?? $card->shoot_day_id]);
        }

        return [
            'files' => $report->files, 'verified' => $card->verified_files, 'bytes' => $report->bytes, 'faults' => count($faults),
            'message' => $faults === [] ? sprintf('%d files verified twice.', $card->verified_files) : $this->sentence($faults[0], $card),
        ];
    }

    /**
     * @param  array<string, mixed>  $fault
     * @param  array<string, string>  $roots  of the stores, by key
     * @param  array<string, array{name: string, path: string}>  $stores
     * @return array<string, mixed> with the volume's name where the core says its folder
     */
    private static function named(array $fault, array $roots, array $stores): array
    {
        foreach ($roots as $key => $root) {
            if (str_starts_with(($fault['destination'] ?? '').'/', $root.'/')) {
                return ['destination' => $stores[$key]['name']] + $fault;
            }
        }

        return $fault;
    }

    /** @param  array<string, mixed>  $file */
    private function note(Card $card, array $file): void
    {
        $hash = hash('xxh128', $file['path']);
        $row = $this->rows[$hash] ?? ['card_id' => $card->id, 'path' => mb_substr($file['path'], 0, 1024), 'path_hash' => $hash, 'size_bytes' => 0, 'algorithm' => null, 'hash' => null, 'copies' => 0, 'verified_at' => null, 'fault' => null];
        if (isset($file['reason'])) {
            $row['fault'] = mb_substr((string) $file['reason'], 0, 300);
            $row['size_bytes'] = $file['bytes'] ?? $row['size_bytes'];
        }
        if (isset($file['copies'])) {
            $row = ['size_bytes' => $file['bytes'], 'algorithm' => $file['algorithm'], 'hash' => $file['hash'], 'copies' => $file['copies'], 'verified_at' => $file['state'] === 'verified' ? now() : null] + $row;
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
        CardFile::query()->upsert(array_values($this->rows), ['card_id', 'path_hash'], ['path', 'size_bytes', 'algorithm', 'hash', 'verified_at', 'fault', 'copies']);
        $this->rows = [];
    }

    /**
     * @param  list<array<string, mixed>>  $faults
     * @param  array<string, string>  $roots  of the stores that were there, by key
     */
    private function conclude(Card $card, OffloadReport $report, array $faults, array $roots, string $path): void
    {
        foreach ($roots as $key => $root) {
            foreach ($report->manifests as $manifest) {
                if (str_starts_with($manifest, $root.'/')) {
                    CardCopy::query()->updateOrCreate(['card_id' => $card->id, 'store' => $key], ['path' => $path, 'manifest' => basename($manifest), 'checked_at' => null, 'differences' => null]);
                }
            }
        }
        $twice = CardFile::query()->where('card_id', $card->id)->where('copies', '>=', 2)->count();
        $whole = $faults === [] && $report->verified === $report->files && $twice >= $report->files;
        $card->update([
            'state' => $whole ? 'verified' : 'fault', 'files' => $report->files, 'verified_files' => min($twice, $report->files), 'size_bytes' => $report->bytes,
            'faults' => $faults === [] ? null : array_slice($faults, 0, 200), 'verified_at' => $whole ? now() : null,
        ]);
    }

    /** @param  array<string, mixed>  $first */
    private function sentence(array $first, Card $card): string
    {
        $where = $first['path'] === '' ? ($first['destination'] ?? 'A destination') : basename($first['path']);

        return sprintf('%s: %s %d of %d files are safe.', $where, $first['reason'], $card->verified_files, $card->files);
    }
}
