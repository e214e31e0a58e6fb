<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Tasks\NoRoom;
use App\Domain\Tasks\Room;
use App\Domain\Tasks\StartTask;
use App\Models\Card;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Task;
use App\Models\Upload;
use App\Models\UploadFile;
use App\Models\User;
use App\Support\Folders;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Media\ImportList;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;

/**
 * Files that are dropped on a page: they come in piece by piece, each proved by its checksum, and go on where they stopped when
 * the same files are brought again. Whole, they are copied to the stores with proof like a card, and become imports.
 */
final class Imports
{
    /** Bytes of a piece at most. */
    public const PIECE = 8 << 20;

    public function __construct(private readonly StartTask $start, private readonly Room $room) {}

    /**
     * Files of a list of which an import of the same name and size is here already.
     *
     * @return array<int, string> the import's roll, by the place in the list
     */
    public static function known(Production $production, ImportList $list): array
    {
        $known = [];
        foreach (array_chunk($list->files, 1000, true) as $some) {
            $there = DB::table('clips')
                ->join('cards', 'cards.id', '=', 'clips.card_id')
                ->join(
                    'card_files',
                    static fn($join) => $join
                        ->on('card_files.card_id', '=', 'clips.card_id')
                        ->on('card_files.path_hash', '=', 'clips.path_hash'),
                )
                ->where('clips.production_id', $production->id)
                ->whereNotNull('clips.import_kind')
                ->whereIn('clips.name', array_map(self::nameOf(...), array_column($some, 'path')))
                ->get(['clips.path', 'card_files.size_bytes', 'cards.roll']);
            $rolls = [];
            foreach ($there as $one) {
                $rolls[basename($one->path) . "\0" . $one->size_bytes] = $one->roll;
            }
            foreach ($some as $place => $file) {
                $roll = $rolls[basename($file['path']) . "\0" . $file['size_bytes']] ?? null;
                $known += $roll === null ? [] : [$place => $roll];
            }
        }

        return $known;
    }

    /** What the clip of a file is called. */
    private static function nameOf(string $path): string
    {
        return mb_substr(pathinfo($path, PATHINFO_FILENAME), 0, 255);
    }

    /**
     * Begins an import, or finds the unfinished one of the same files.
     *
     * @param  string|null  $kind  one of {@see \Cartella\Core\Media\MediaNames::IMPORTS}; null goes by the folders
     *
     * @throws Problem if nothing is left to bring in, or there is no room for it
     */
    public function begin(ShootDay $day, User $user, ImportList $list, ?string $kind): Upload
    {
        if ($list->files === []) {
            throw Problem::refused('import.nothing', 'None of these files can come in.', 'Choose pictures, sound or stills.');
        }
        $bytes = array_sum(array_column($list->files, 'size_bytes'));
        $fingerprint = hash('xxh128', json_encode(array_values($list->files), JSON_THROW_ON_ERROR));
        $open = Upload::query()
            ->where('production_id', $day->production_id)
            ->where('user_id', $user->id)
            ->whereNull('card_id')
            ->where('fingerprint', $fingerprint)
            ->first();
        if ($open !== null) {
            $open->update(['import_kind' => $kind, 'shoot_day_id' => $day->id]);

            return $open;
        }
        try {
            $this->room->need([Folders::uploads() => $bytes]);
        } catch (NoRoom $full) {
            throw Problem::refused('import.room', $full->getMessage(), 'Make room, or bring them in from a reader.');
        }

        return DB::transaction(static function () use ($day, $user, $list, $kind, $fingerprint, $bytes): Upload {
            $upload = Upload::query()->create([
                'production_id' => $day->production_id,
                'shoot_day_id' => $day->id,
                'user_id' => $user->id,
                'import_kind' => $kind,
                'fingerprint' => $fingerprint,
                'files' => count($list->files),
                'size_bytes' => $bytes,
            ]);
            $number = 0;
            foreach (array_chunk($list->files, 1000) as $some) {
                UploadFile::query()->insert(
                    array_map(static function (array $file) use ($upload, &$number): array {
                        return ['upload_id' => $upload->id, 'number' => $number++] + $file;
                    }, $some),
                );
            }

            return $upload;
        });
    }

    /**
     * Keeps one piece of a file; one that is there already is answered as if it had come now.
     *
     * @param  int  $from  bytes of the file before it
     * @param  string  $digest  its SHA-256, 32 bytes
     * @return int bytes of the file that are here
     *
     * @throws Problem if it was damaged on its way, does not go on where the file ends, or finds no room
     */
    public function take(Upload $upload, int $number, int $from, string $piece, string $digest): int
    {
        if (strlen($piece) > self::PIECE || !hash_equals($digest, hash('sha256', $piece, true))) {
            throw Problem::refused('import.damaged', 'A piece of the file arrived damaged.', 'It is sent again.');
        }

        return DB::transaction(static function () use ($upload, $number, $from, $piece): int {
            // The upload first: whoever drops or finishes it meanwhile waits, or is found to have done so.
            $isOpen = Upload::query()->whereKey($upload->id)->whereNull('card_id')->sharedLock()->exists();
            $file = UploadFile::query()->where('upload_id', $upload->id)->where('number', $number)->lockForUpdate()->first();
            if (!$isOpen || $file === null) {
                throw Problem::missing('This import', 'Drop the files again.');
            }
            $end = $from + strlen($piece);
            if ($end <= $file->received_bytes) {
                return $file->received_bytes;
            }
            if ($from !== $file->received_bytes || $end > $file->size_bytes) {
                throw Problem::conflict(
                    'import.gap',
                    sprintf('%s is here up to byte %d.', basename($file->path), $file->received_bytes),
                    'It goes on from there.',
                    ['received_bytes' => $file->received_bytes],
                );
            }
            self::write(self::folder($upload) . '/' . $file->path, $from, $piece);
            $file->update(['received_bytes' => $end]);

            return $end;
        }, attempts: 3);
    }

    private static function write(string $path, int $from, string $piece): void
    {
        File::ensureDirectoryExists(dirname($path), 0770);
        $handle = @fopen($path, 'cb');
        // A link that lies there was laid by somebody else.
        $isWritten =
            $handle !== false &&
            !is_link($path) &&
            fseek($handle, $from) === 0 &&
            @fwrite($handle, $piece) === strlen($piece) &&
            ftruncate($handle, $from + strlen($piece)) &&
            fflush($handle);
        $handle === false ?: fclose($handle);
        if (!$isWritten) {
            throw Problem::refused('import.room', 'There is no room for the rest of it.', 'Make room; it goes on where it stopped.');
        }
    }

    /**
     * Has a whole import copied to the stores, or tried again where that failed.
     *
     * @throws Problem if some of it has not arrived yet
     */
    public function finish(Upload $upload, User $user): Task
    {
        return DB::transaction(function () use ($upload, $user): Task {
            Production::query()->whereKey($upload->production_id)->lockForUpdate()->first();
            $upload = Upload::query()->with('card')->lockForUpdate()->findOrFail($upload->id);
            $missing = $upload->parts()->whereColumn('received_bytes', '<', 'size_bytes')->count();
            if ($missing > 0) {
                throw Problem::refused('import.open', "$missing files have not arrived yet.", 'Drop the same files again; they go on.');
            }
            $card = $upload->card;
            if ($card === null) {
                $card = Card::query()->create([
                    'production_id' => $upload->production_id,
                    'shoot_day_id' => $upload->shoot_day_id,
                    'roll' => self::nextRoll($upload->production),
                    'volume' => '',
                    'import_kind' => $upload->import_kind,
                    'state' => 'copying',
                    'files' => $upload->files,
                    'size_bytes' => $upload->size_bytes,
                ]);
                $upload->update(['card_id' => $card->id]);
            }
            Live::tell($upload->production_id, Topic::Cards, ['card' => $card->ulid]);

            return ($this->start)(
                $upload->production,
                $user,
                'offload',
                'Bring in ' . $card->roll,
                ['card' => $card->id, 'day' => $card->shoot_day_id],
                "copies.$card->id",
            );
        });
    }

    /** Has an import copied once more; null for a card that came from a reader. */
    public function again(Card $card, User $user): ?Task
    {
        return $card->upload === null ? null : $this->finish($card->upload, $user);
    }

    /** @throws Problem if it is being copied already */
    public function drop(Upload $upload): void
    {
        DB::transaction(static function () use ($upload): void {
            $locked = Upload::query()->lockForUpdate()->findOrFail($upload->id);
            if ($locked->card_id !== null) {
                throw Problem::refused('import.whole', 'It has arrived and is copied already.', 'Its clips can be taken away afterwards.');
            }
            $locked->delete();
        });
        File::deleteDirectory(self::folder($upload));
    }

    /** Where the files of a card lie that was dropped on a page and is not copied yet; null for any other card. */
    public static function sourceOf(Card $card): ?string
    {
        $upload = $card->upload;

        return $upload === null ? null : self::folder($upload);
    }

    /** What was copied and proved twice need not lie here, too. */
    public static function forget(Card $card): void
    {
        foreach (Upload::query()->where('card_id', $card->id)->get() as $upload) {
            File::deleteDirectory(self::folder($upload));
            $upload->delete();
        }
    }

    public static function folder(Upload $upload): string
    {
        return Folders::uploads($upload->ulid);
    }

    private static function nextRoll(Production $production): string
    {
        $taken = Card::query()->where('production_id', $production->id)->where('roll', 'like', 'Import %')->pluck('roll')->flip();
        for ($number = 1; $taken->has("Import $number"); $number++) {
        }

        return "Import $number";
    }
}
