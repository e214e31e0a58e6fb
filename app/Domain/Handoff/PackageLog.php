<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Clip;
use App\Models\Handoff;
use App\Models\TakePart;
use App\Support\Clock;
use Cartella\Core\Exchange\CsvWriter;
use Cartella\Core\Fields\Field;
use Cartella\Core\Fields\FieldType;
use Illuminate\Support\Collection;

/** What is known of the clips of a package, as a table: `log.csv`. */
final class PackageLog
{
    /** @param  Collection<int, Clip>  $clips  with days, devices, cards, parts, takes and placements */
    public static function csv(Collection $clips, Handoff $handoff, PackagePaths $paths): string
    {
        // Every field of the production that is no mark and no part of the slate has a column; marks share one.
        $fields = array_values(
            array_filter(
                $handoff->production->fields()->all(),
                static fn(Field $field): bool => $field->type !== FieldType::Slate &&
                    ($field->type !== FieldType::YesNo || $field->isOwn()),
            ),
        );
        $heading = [
            'Day',
            'Scene',
            'Setup',
            'Take',
            ...array_map(static fn(Field $field): string => $field->label, $fields),
            'Marks',
            'Screening notes',
            'Take name',
            'Clip',
            'Original name',
            'Device',
            'Roll',
            'Start timecode',
            'Length',
            'Placed by',
            'Sure',
            'File',
        ];
        // A row for each take that a clip belongs to: one recording over six takes is six rows.
        $rows = $clips
            ->flatMap(
                static fn(Clip $clip): array => $clip->parts->isEmpty()
                    ? [[$clip, null]]
                    : $clip->parts->map(static fn(TakePart $part): array => [$clip, $part])->all(),
            )
            ->sortBy(
                static fn(array $row): array => [
                    $row[0]->day->number,
                    $row[1]?->take->sort_key ?? '~',
                    $row[0]->device->lane ?? 99,
                    $row[0]->start_ticks + (int) $row[1]?->in_ticks,
                ],
            )
            ->values();

        return CsvWriter::write(
            $heading,
            $rows
                ->map(static function (array $row) use ($handoff, $fields, $paths): array {
                    /** @var array{Clip, TakePart|null} $row */
                    [$clip, $part] = $row;
                    $rate = $clip->rate() ?? $handoff->production->rate();
                    $take = $part?->take;
                    $in = (int) $part?->in_ticks;
                    $out = $part->out_ticks ?? $clip->duration_ticks;

                    return [
                        $clip->day->number,
                        $take?->scene,
                        $take?->setup,
                        $take === null ? null : ($take->part === '' ? $take->take : $take->take . $take->part),
                        ...array_map(
                            static fn(Field $field): string => $take === null ? '' : $field->text($take->valueOf($field->key)),
                            $fields,
                        ),
                        $take === null ? '' : implode(', ', $take->marks()),
                        $take?->screeningNotes->pluck('text')->implode(' · '),
                        $take?->name,
                        $clip->title(),
                        $clip->name,
                        $clip->device?->letter,
                        $clip->card?->roll,
                        Clock::label($clip->start_ticks === null ? null : $clip->start_ticks + $in, $rate),
                        Clock::label($out === null ? null : $out - $in, $rate),
                        $clip->placement?->start_ticks === null ? '' : $clip->placement->way,
                        $clip->placement?->start_ticks === null ? '' : $clip->placement->is_sure,
                        $paths->of($clip),
                    ];
                })
                ->all(),
        );
    }
}
