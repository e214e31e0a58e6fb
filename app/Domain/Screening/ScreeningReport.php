<?php

declare(strict_types=1);

namespace App\Domain\Screening;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Models\Clip;
use App\Models\ScreeningNote;
use App\Models\StoredSequence;
use App\Models\Take;
use App\Models\TakeRating;
use App\Support\Clock;
use App\Support\Pdf;
use Cartella\Core\Exchange\CsvWriter;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Process;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;

/** The notes of a reel's screening, to print with a picture each, or as a table. */
final readonly class ScreeningReport
{
    /** Pictures of one report. */
    private const PICTURES = 400;

    public function __construct(private Said $said) {}

    public function title(string $reel): string
    {
        return 'Notes on ' . StoredSequence::query()->where('ulid', $reel)->value('name');
    }

    public function csv(StoredSequence $reel): string
    {
        $rows = [];
        foreach ($this->said->takes($reel) as $take) {
            $head = [$take->scene, $take->setup, $take->take . $take->part, self::status($take)];
            foreach ($take->ratings as $rating) {
                $rows[] = [...$head, '', '', '', $rating->user->name, $rating->stars, ''];
            }
            foreach ($take->screeningNotes as $note) {
                $rate = $note->clip?->rate() ?? $reel->production->rate();
                $rows[] = [
                    ...$head,
                    $note->clip?->title(),
                    self::label($note, $note->at_ticks, $rate),
                    $note->out_ticks === null ? '' : self::label($note, $note->out_ticks, $rate),
                    $note->user->name ?? 'Somebody',
                    '',
                    $note->text,
                ];
            }
        }

        return CsvWriter::write(['Scene', 'Setup', 'Take', 'Status', 'Clip', 'From', 'To', 'By', 'Stars', 'Note'], $rows);
    }

    public function pdf(string $ulid): string
    {
        $reel = StoredSequence::query()
            ->where('ulid', $ulid)
            ->with(['production', 'day'])
            ->sole();
        $takes = $this->said->takes($reel);
        $left = self::PICTURES;
        $rows = [];
        foreach ($takes as $take) {
            if ($take->screeningNotes->isEmpty() && $take->ratings->isEmpty() && $take->status === TakeStatus::None->value) {
                continue;
            }
            $rows[] = [
                'label' => $take->label(),
                'status' => $take->status,
                'description' => $take->description,
                'ratings' => $take->ratings
                    ->map(static fn(TakeRating $rating): string => "{$rating->user->name} $rating->stars of 5")
                    ->implode(', '),
                'notes' => $take->screeningNotes
                    ->map(static function (ScreeningNote $note) use (&$left, $reel): array {
                        $rate = $note->clip?->rate() ?? $reel->production->rate();

                        return [
                            'picture' => $note->clip === null || --$left < 0 ? null : self::picture($note->clip, $note->at_ticks),
                            'at' =>
                                self::label($note, $note->at_ticks, $rate) .
                                ($note->out_ticks === null ? '' : ' to ' . self::label($note, $note->out_ticks, $rate)),
                            'by' => $note->user->name ?? 'Somebody',
                            'text' => $note->text,
                        ];
                    })
                    ->all(),
            ];
        }

        return Pdf::of(
            'screening',
            [
                'title' => 'Notes on ' . $reel->name,
                'production' => $reel->production,
                'day' => $reel->day,
                'running' => Clock::time($reel->running_ticks),
                'takes' => count($takes),
                'people' => Said::people($takes),
                'rows' => $rows,
            ],
            'portrait',
        );
    }

    private static function status(Take $take): string
    {
        return $take->status === TakeStatus::None->value ? '' : $take->status;
    }

    private static function label(ScreeningNote $note, int $ticks, FrameRate $rate): ?string
    {
        return $note->clip?->start_ticks === null ? null : Clock::label($note->clip->start_ticks + $ticks, $rate);
    }

    /** @return string|null the frame that was seen, for a page that carries its pictures itself; null where there is none */
    private static function picture(Clip $clip, int $ticks): ?string
    {
        $media = MediaFolder::of($clip);
        $proxy = $media->read(MediaFile::Proxy);
        $rate = $clip->rate() ?? $clip->production->rate();
        if (!is_file($proxy)) {
            return null;
        }
        $middle = max(0.0, ((Ticks::toFrames($ticks, $rate) - 0.5) * $rate->den) / $rate->num);
        $run = Process::run(
            [
                ...Ffmpeg::command(),
                ...Ffmpeg::input($proxy, ['-ss', sprintf('%.6F', $middle)]),
                ...['-frames:v', '1', '-vf', 'scale=240:-2', '-q:v', '5', '-f', 'mjpeg', '-'],
            ],
            null,
            60,
        );

        return $run['status'] === 0 && $run['output'] !== '' ? 'data:image/jpeg;base64,' . base64_encode($run['output']) : null;
    }
}
