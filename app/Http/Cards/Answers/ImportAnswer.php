<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

use App\Domain\Cards\Imports;
use App\Http\ListOf;
use App\Models\Upload;
use App\Models\UploadFile;
use Cartella\Core\Media\ImportList;

/** Files on their way in; bytes. `files` are given where they are to be sent. */
final readonly class ImportAnswer
{
    /**
     * @param  list<ImportFileAnswer>  $files
     * @param  list<array{path: string, reason: string}>  $refused
     */
    private function __construct(
        public string $ulid,
        public ?string $roll,
        public ?string $import_kind,
        public string $by,
        public string $begun_at,
        public int $count,
        public int $size_bytes,
        public int $received_bytes,
        public int $piece_bytes,
        public bool $is_mine,
        #[ListOf(ImportFileAnswer::class)] public array $files,
        public array $refused,
        public int $passed,
    ) {}

    public static function of(Upload $upload, int $user, ?ImportList $list = null): self
    {
        // The client knows its files by their place in the list that it sent.
        $places = array_keys($list->files ?? []);

        return new self(
            $upload->ulid,
            $upload->card?->roll,
            $upload->import_kind,
            $upload->user->name,
            $upload->created_at?->toIso8601String() ?? '',
            $upload->files,
            $upload->size_bytes,
            (int) ($upload->getAttribute('parts_sum_received_bytes') ?? $upload->parts()->sum('received_bytes')),
            Imports::PIECE,
            $upload->user_id === $user,
            $list === null
                ? []
                : array_values(
                    $upload->parts
                        ->map(
                            static fn(UploadFile $file): ImportFileAnswer => new ImportFileAnswer(
                                $places[$file->number],
                                $file->number,
                                $file->size_bytes,
                                $file->received_bytes,
                            ),
                        )
                        ->all(),
                ),
            array_values($list->refused ?? []),
            $list->passed ?? 0,
        );
    }
}
