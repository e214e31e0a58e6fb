<?php

declare(strict_types=1);

namespace App\Domain\Handoff\Back;

use App\Domain\Footage\Stores;
use App\Domain\Handoff\PackedFiles;
use App\Domain\Sequences\ClipSource;
use App\Domain\Sequences\SequenceStore;
use App\Domain\Tasks\Room;
use App\Domain\Tasks\TaskRun;
use App\Models\CardFile;
use App\Models\Clip;
use App\Models\StoredSequence;
use App\Support\Clock;
use App\Support\OwnFolder;
use App\Support\Problem;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Custody\PathTemplate;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Exchange\CsvWriter;
use Cartella\Core\Exchange\Otio\OtioWriter;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Process;
use Cartella\Core\Time\Ticks;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Copies the originals of a cut, whole or as far as it needs them, with a list of what is what and hashes over all of it. */
final class PullJob implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 0;

    public function __construct(public readonly int $taskId) {}

    public function handle(SequenceStore $store, Stores $stores): void
    {
        TaskRun::of($this->taskId, function (TaskRun $run) use ($store, $stores): array {
            $subject = $run->task->subject;
            $cut = StoredSequence::query()->findOrFail($subject['sequence']);
            $delivery = PullOriginals::delivery($run->task, $cut);
            $final = $delivery->folder();
            $done = 0;
            $sent = static function (string $path) use ($run, &$done): void {
                $run->at($done, (int) $run->task->done_bytes, 'Sent: ' . basename($path));
            };
            if (!$delivery->isThere() && is_dir($final)) {
                // Made by a run that was killed while it was sent.
                $delivery->send($sent);
            }
            if ($delivery->isThere()) {
                return ['message' => 'The originals lie in the inbox.', 'folder' => basename($final)];
            }
            $needs = PullOriginals::needs($cut, $store, (int) $subject['handles']);
            $work = $delivery->work($run->task->ulid);
            if (!is_dir($work)) {
                OwnFolder::make($work);
            }
            $sizes = self::sizes($needs);
            app(Room::class)->need([dirname($final) => array_sum($sizes)]);
            $run->expect(count($needs), array_sum($sizes));
            $now = '';
            $files = new PackedFiles($work, static function (int $bytes) use ($run, &$done, &$now): void {
                $run->at($done, $bytes, $now, $bytes);
            });
            $rows = $wanted = $places = $missing = [];
            foreach ($needs as ['clip' => $clip, 'ranges' => $ranges]) {
                $now = $clip->name;
                $run->at($done, $files->bytes, $now);
                try {
                    foreach ($this->pull($clip, $ranges, (bool) $subject['trimmed'], $stores, $files) as [$path, $row]) {
                        $wanted[$path] = true;
                        $places[$clip->ulid] ??= $path;
                        $rows[] = $row;
                    }
                } catch (Problem $away) {
                    $missing[] = $clip->name;
                    $rows[] = [$clip->title(), $clip->card?->roll, '', '', '', $away->getMessage()];
                }
                $done++;
            }
            if ($wanted === []) {
                throw Problem::refused(
                    'pull.away',
                    'No copy of any clip of this cut can be reached.',
                    'Mount a volume with its cards and try again.',
                );
            }
            $files->text('pull.csv', CsvWriter::write(['Clip', 'Roll', 'File', 'From', 'To', 'How'], $rows));
            $files->text('cut.otio', OtioWriter::write(self::relinked($store->read($cut), $cut, $places)));
            $entries = $files->settle($wanted + ['pull.csv' => true, 'cut.otio' => true]);
            @unlink($work . '/' . OwnFolder::MARKER);
            Manifest::write($work, $entries, 'transfer', HashAlgorithm::Xxh128, now()->getTimestamp(), basename($final));
            if (file_exists($final) || !@rename($work, $final)) {
                throw Problem::refused('pull.there', 'A folder of that name lies in the inbox already.', 'Move it away and pull again.');
            }
            $delivery->send($sent);

            return [
                'message' => sprintf('%d of %d clips lie in the inbox.', count($needs) - count($missing), count($needs)),
                'folder' => basename($final),
                'missing' => $missing,
            ];
        });
    }

    /**
     * @param  list<array{clip: Clip, ranges: list<array{int, int}>}>  $needs
     * @return list<int> bytes of each whole clip
     */
    private static function sizes(array $needs): array
    {
        $cards = array_unique(array_map(static fn(array $need): int => (int) $need['clip']->card_id, $needs));
        $known = [];
        foreach (
            CardFile::query()
                ->whereIn('card_id', $cards)
                ->toBase()
                ->get(['card_id', 'path', 'size_bytes'])
            as $file
        ) {
            $known[$file->card_id][$file->path] = (int) $file->size_bytes;
        }

        return array_map(
            static fn(array $need): int => array_sum(
                array_map(static fn(string $path): int => $known[$need['clip']->card_id][$path] ?? 0, $need['clip']->paths()),
            ),
            $needs,
        );
    }

    /**
     * @param  list<array{int, int}>  $ranges
     * @return list<array{string, list<string|null>}> paths and what the list says of them
     *
     * @throws Problem if no copy can be reached
     */
    private function pull(Clip $clip, array $ranges, bool $isTrimmed, Stores $stores, PackedFiles $files): array
    {
        $sources = $stores->filesOf($clip);
        $folder = PathTemplate::plain($clip->card->roll ?? 'import');
        $rate = $clip->rate() ?? $clip->production->rate();
        $label = static fn(int $ticks): string => (string) Clock::label((int) $clip->start_ticks + $ticks, $rate);
        $pulled = [];
        if ($isTrimmed && PullOriginals::canTrim($clip, $sources[0])) {
            foreach ($ranges as $number => [$from, $to]) {
                $extension = pathinfo($sources[0], PATHINFO_EXTENSION);
                $path = sprintf(
                    '%s/%s_%d.%s',
                    $folder,
                    PathTemplate::plain(pathinfo($sources[0], PATHINFO_FILENAME)),
                    $number + 1,
                    $extension,
                );
                $mark = "$from $to";
                if (!$files->has($path, $mark)) {
                    $files->made($path, $mark, static function (string $target) use ($sources, $from, $to, $clip, $rate): ?string {
                        self::trim($sources[0], $target, $from, $to, $clip, (string) Clock::label((int) $clip->start_ticks + $from, $rate));

                        return null;
                    });
                }
                $pulled[] = [
                    $path,
                    [$clip->title(), $clip->card?->roll, $path, $label($from), $label($to), 'the stretch, copied without making it anew'],
                ];
            }

            return $pulled;
        }
        $known = CardFile::query()->where('card_id', $clip->card_id)->where('algorithm', 'xxh128')->pluck('hash', 'path');
        foreach ($sources as $number => $source) {
            $path = $folder . '/' . PathTemplate::plain(basename($source));
            if (!$files->has($path, 'whole')) {
                $files->copy($source, $path, 'whole', $known[$clip->paths()[$number]] ?? null);
            }
            $pulled[] = [
                $path,
                [
                    $clip->title(),
                    $clip->card?->roll,
                    $path,
                    $label(0),
                    $label((int) $clip->duration_ticks),
                    $isTrimmed ? 'whole: a stretch cannot be copied out of this kind of file' : 'whole',
                ],
            ];
        }

        return $pulled;
    }

    private static function trim(string $source, string $target, int $from, int $to, Clip $clip, string $label): void
    {
        // Half a frame earlier, so that rounding leaves no frame out.
        $half = intdiv(($clip->rate() ?? $clip->production->rate())->ticksPerFrame(), 2);
        $seconds = static fn(int $ticks): string => sprintf('%.6F', max(0, $ticks) / Ticks::PER_SECOND);
        $run = Process::run(
            [
                ...Ffmpeg::command(),
                ...Ffmpeg::input($source, ['-ss', $seconds($clip->isPicture() ? $from - $half : $from)]),
                '-t',
                $seconds($to - $from),
                '-map',
                '0',
                '-dn',
                '-c',
                'copy',
                ...$clip->isPicture()
                    ? ['-timecode', $label]
                    : [
                        '-write_bext',
                        '1',
                        '-metadata',
                        'time_reference=' . Ticks::toSamples((int) $clip->start_ticks + $from, (int) $clip->sample_rate),
                    ],
                $target,
            ],
            null,
            6 * 3600,
        );
        if ($run['status'] !== 0) {
            throw UnableToReadMedia::program('ffmpeg', $clip->name, $run['error']);
        }
    }

    /** @param  array<string, string>  $places  where a clip lies in the folder, by its ULID */
    private static function relinked(Sequence $sequence, StoredSequence $cut, array $places): Sequence
    {
        $clips = Clip::query()
            ->with('card')
            ->where('production_id', $cut->production_id)
            ->whereIn('ulid', array_keys($places))
            ->get()
            ->keyBy('ulid');
        $changed = [];
        foreach ($sequence->tracks as $number => $track) {
            $changed[$number] = array_map(
                static fn(Item $item): Item => isset($clips[$item->source->id])
                    ? $item->with(source: ClipSource::of($clips[$item->source->id], $sequence->rate, $places[$item->source->id]))
                    : $item,
                $track->items,
            );
        }

        return $sequence->with($changed);
    }
}
