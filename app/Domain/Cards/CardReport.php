<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Models\Card;
use App\Models\CardFile;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\TakePart;
use App\Support\Clock;
use App\Support\Pdf;
use Cartella\Core\Exchange\CsvWriter;
use Cartella\Core\Fields\TakeStatus;
use Illuminate\Support\Collection;

/** Camera report and sound report, of one card or of a whole day: a line per clip, as CSV, or as PDF with pictures. */
final class CardReport
{
    /** @param  'camera'|'sound'  $kind */
    public function csv(ShootDay $day, ?Card $card, string $kind): string
    {
        $heading =
            $kind === 'camera'
                ? [
                    'Roll',
                    'Clip',
                    'Device',
                    'Scene',
                    'Setup',
                    'Take',
                    'Status',
                    'Start timecode',
                    'Length',
                    'Frames',
                    'Rate',
                    'Width',
                    'Height',
                    'Notes',
                    'Bytes',
                    'Checksum',
                    'Copies',
                    'Problems',
                ]
                : [
                    'Roll',
                    'Clip',
                    'Device',
                    'Scene',
                    'Setup',
                    'Take',
                    'Status',
                    'Start timecode',
                    'Length',
                    'Sample rate',
                    'Tracks',
                    'Track names',
                    'Notes',
                    'Bytes',
                    'Checksum',
                    'Copies',
                    'Problems',
                ];

        return CsvWriter::write(
            $heading,
            array_map(
                static fn(array $row): array => $kind === 'camera'
                    ? [
                        $row['roll'],
                        $row['clip'],
                        $row['device'],
                        $row['scene'],
                        $row['setup'],
                        $row['take'],
                        $row['status'],
                        $row['start'],
                        $row['length'],
                        $row['frames'],
                        $row['rate'],
                        $row['width'],
                        $row['height'],
                        $row['notes'],
                        $row['bytes'],
                        $row['checksum'],
                        $row['copies'],
                        $row['problems'],
                    ]
                    : [
                        $row['roll'],
                        $row['clip'],
                        $row['device'],
                        $row['scene'],
                        $row['setup'],
                        $row['take'],
                        $row['status'],
                        $row['start'],
                        $row['length'],
                        $row['sample_rate'],
                        count($row['tracks']),
                        implode(', ', $row['tracks']),
                        $row['notes'],
                        $row['bytes'],
                        $row['checksum'],
                        $row['copies'],
                        $row['problems'],
                    ],
                $this->rows($day, $card, $kind),
            ),
        );
    }

    /**
     * @param  'camera'|'sound'  $kind
     * @return string the PDF
     */
    public function pdf(ShootDay $day, ?Card $card, string $kind): string
    {
        $rows = $this->rows($day, $card, $kind);

        return Pdf::of(
            'report',
            [
                'title' => ($kind === 'camera' ? 'Camera report' : 'Sound report') . ($card === null ? '' : ' ' . $card->roll),
                'kind' => $kind,
                'production' => $day->production,
                'day' => $day,
                'card' => $card,
                'rows' => $rows,
                'running' => Clock::time((int) array_sum(array_column($rows, 'ticks'))),
                'bytes' => array_sum(array_column($rows, 'bytes')),
                'circled' => count(array_filter($rows, static fn(array $row): bool => $row['status'] === 'circled')),
            ],
            'landscape',
        );
    }

    /** `Low Water day 1 camera report A001.pdf` */
    public static function fileName(Production $production, ShootDay $day, ?Card $card, string $kind, string $format): string
    {
        return sprintf(
            '%s day %d %s report%s.%s',
            $production->name,
            $day->number,
            $kind,
            $card === null ? '' : ' ' . $card->roll,
            $format,
        );
    }

    /**
     * @param  'camera'|'sound'  $kind
     * @return list<array<string, mixed>>
     */
    private function rows(ShootDay $day, ?Card $card, string $kind): array
    {
        /** @var Collection<int, Clip> $clips */
        $clips = Clip::shotOn($day->id)
            ->with(['device', 'parts.take', 'card', 'production'])
            ->where('kind', $kind === 'camera' ? 'picture' : 'sound')
            ->when($card !== null, static fn($query) => $query->where('card_id', $card->id))
            ->get()
            ->sortBy(static fn(Clip $clip): array => [$clip->device->lane ?? 99, $clip->card->roll ?? '', $clip->start_ticks, $clip->name])
            ->values();
        $files = CardFile::query()
            ->whereIn('card_id', $clips->pluck('card_id')->unique())
            ->get()
            ->keyBy(static fn(CardFile $file): string => $file->card_id . $file->path_hash);

        return $clips
            ->map(static function (Clip $clip) use ($files, $kind): array {
                $rate = $clip->rate() ?? $clip->production->rate();
                $file = $files->get($clip->card_id . $clip->path_hash);
                $further = array_map(
                    static fn(string $path): int => (int) ($files->get($clip->card_id . hash('xxh128', $path))->size_bytes ?? 0),
                    array_slice($clip->paths(), 1),
                );
                $takes = $clip->parts->map(static fn(TakePart $part): Take => $part->take)->unique('id')->values();
                $take = $takes->first();
                $picture = MediaFolder::of($clip)->read(MediaFile::SlatePicture);

                return [
                    'roll' => $clip->card?->roll,
                    'clip' => $clip->name,
                    'device' => $clip->device?->letter,
                    'scene' => $takes->pluck('scene')->unique()->implode(', '),
                    'setup' => $takes->pluck('setup')->unique()->implode(', '),
                    'take' => match ($takes->count()) {
                        0 => null,
                        1 => $take->take . $take->part,
                        default => $takes->first()->take . $takes->first()->part . ' to ' . $takes->last()->take . $takes->last()->part,
                    },
                    'status' => $takes->pluck('status')->reject(TakeStatus::None->value)->unique()->implode(', '),
                    'start' => Clock::label($clip->start_ticks, $rate),
                    'length' => Clock::label($clip->duration_ticks, $rate),
                    'ticks' => (int) $clip->duration_ticks,
                    'frames' => $clip->frames,
                    'rate' => $rate->label(),
                    'width' => $clip->facts['width'] ?? null,
                    'height' => $clip->facts['height'] ?? null,
                    'sample_rate' => $clip->sample_rate,
                    'tracks' => array_values(
                        array_map(static fn(array $channel): string => (string) $channel['name'], $clip->channels ?? []),
                    ),
                    'notes' => $takes->pluck('notes')->filter()->implode(' · '),
                    'bytes' => (int) $file?->size_bytes + array_sum($further),
                    'checksum' => $file === null ? '' : "$file->algorithm $file->hash",
                    'copies' => $file?->copies,
                    'problems' => implode(' ', $clip->problems ?? []),
                    'picture' =>
                        $kind === 'camera' && is_file($picture)
                            ? 'data:image/jpeg;base64,' . base64_encode((string) file_get_contents($picture))
                            : null,
                ];
            })
            ->all();
    }
}
