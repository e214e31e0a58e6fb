<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Tasks\StartTask;
use App\Domain\Tasks\TaskCancelled;
use App\Domain\Tasks\TaskRun;
use App\Models\Card;
use App\Models\CardCopy;
use App\Models\CardFile;
use App\Support\Live;
use Cartella\Core\Custody\Offload;
use Cartella\Core\Custody\OffloadReport;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Copies one card to every store with proof, then has it catalogued. Run again it goes on where it was stopped. */
final class CopyCardJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    /** No limit in seconds: a card of a terabyte takes hours; a cancel or a kill ends it cleanly at any time. */
    public int $timeout = 0;

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
                $card->update(['state' => 'stopped']);
                Live::tell($card->production_id, 'cards', ['card' => $card->ulid]);
                throw $stop;
            } catch (\Throwable $trouble) {
                $card->update(['state' => 'fault', 'faults' => [['path' => '', 'reason' => $trouble->getMessage()]]]);
                Live::tell($card->production_id, 'cards', ['card' => $card->ulid]);
                throw $trouble;
            }
        });
    }

    /** @return array<string, mixed> */
    private function copy(TaskRun $run, Card $card, Bench $bench, Stores $stores, StartTask $start): array
    {
        $run->expect($card->files, $card->size_bytes);
        $below = Stores::below($card->production, $card->day, $card->device);
        $files = $bytes = $current = 0;
        $report = Offload::run(
            $bench->path($card->volume),
            array_map(static fn (array $store): string => $store['path'].'/'.$below, array_values($stores->all())),
            resume: true,
            onFile: function (array $file) use ($run, $card, &$files, &$bytes, &$current): void {
                $this->note($card, $file);
                if (isset($file['copies'])) {
                    $files++;
                    $bytes += $file['bytes'];
                    $current = 0;
                    $run->at($files, $bytes, $file['path']);
                }
            },
            onBytes: static function (string $path, int $copied, string $step) use ($run, &$files, &$bytes): void {
                $run->at($files, $bytes + $copied, ($step === 'copying' ? '' : 'reading back ').$path);
            },
            name: $card->roll,
        );
        $this->conclude($card, $report, $stores, $below);
        Live::tell($card->production_id, 'cards', ['card' => $card->ulid]);
        if ($report->verified > 0) {
            $start($card->production, null, 'catalogue', 'Catalogue '.$card->roll, ['card' => $card->id]);
        }

        return [
            'files' => $report->files, 'verified' => $report->verified, 'bytes' => $report->bytes, 'faults' => count($report->faults),
            'message' => $report->faults === [] ? sprintf('%d files verified twice.', $report->verified) : $this->sentence($report),
        ];
    }

    /** @param  array<string, mixed>  $file */
    private function note(Card $card, array $file): void
    {
        $values = ['path' => mb_substr($file['path'], 0, 1024), 'fault' => isset($file['reason']) ? mb_substr((string) $file['reason'], 0, 300) : null];
        if (isset($file['copies'])) {
            $values += [
                'size_bytes' => $file['bytes'], 'algorithm' => $file['algorithm'], 'hash' => $file['hash'], 'copies' => $file['copies'],
                'verified_at' => $file['state'] === 'verified' ? now() : null,
            ];
            if ($file['state'] !== 'verified') {
                unset($values['fault']); // the fault line before this one said why
            }
        }
        CardFile::query()->updateOrCreate(['card_id' => $card->id, 'path_hash' => hash('xxh128', $file['path'])], $values + ['size_bytes' => $file['bytes'] ?? 0]);
    }

    private function conclude(Card $card, OffloadReport $report, Stores $stores, string $below): void
    {
        foreach ($stores->all() as $key => $store) {
            foreach ($report->manifests as $manifest) {
                if (str_starts_with($manifest, (string) realpath($store['path']).'/')) {
                    CardCopy::query()->updateOrCreate(['card_id' => $card->id, 'store' => $key], ['path' => $below.'/'.$card->roll, 'manifest' => basename($manifest), 'checked_at' => null, 'differences' => null]);
                }
            }
        }
        $whole = $report->faults === [] && $report->verified === $report->files;
        $card->update([
            'state' => $whole ? 'verified' : 'fault', 'files' => $report->files, 'verified_files' => $report->verified, 'size_bytes' => $report->bytes,
            'faults' => $report->faults === [] ? null : array_slice($report->faults, 0, 200), 'verified_at' => $whole ? now() : null,
        ]);
    }

    private function sentence(OffloadReport $report): string
    {
        $first = $report->faults[0];
        $where = $first['path'] === '' ? ($first['destination'] ?? 'A destination') : basename($first['path']);

        return sprintf('%s: %s %d of %d files are safe.', $where, $first['reason'], $report->verified, $report->files);
    }
}
