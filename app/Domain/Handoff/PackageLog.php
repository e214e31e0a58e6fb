<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Footage\Screened;
use App\Models\Clip;
use App\Models\Handoff;
use App\Models\Production;
use App\Models\TakePart;
use App\Support\Clock;
use Cartella\Core\Exchange\CsvWriter;
use Cartella\Core\Fields\Field;
use Cartella\Core\Fields\FieldType;
use Illuminate\Support\Collection;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;

/** What is known of the clips of a package, as a table: `log.csv`. */
final class PackageLog
{
    /**
     * @param  Collection<int, Clip>  $clips  with days, devices, cards, parts, takes and placements
     * @param  list<string>|null  $columns  by their headings; null for all
     * @return array{list<string>, list<list<scalar|null>>} heading and rows
     */
    public static function table(Collection $clips, Handoff $handoff, PackagePaths $paths, ?array $columns = null): array
    {
        $fields = self::fieldsOf($handoff->production);
        $heading = self::heading($fields);
        // A row for each take that a clip belongs to: one recording over six takes is six rows.
        $screened = Screened::lines(
            $clips->flatMap(static fn(Clip $clip): Collection => $clip->parts->pluck('take_id'))->unique()->values()->all(),
        );
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

        $table = array_values(
            $rows
                ->map(static function (array $row) use ($handoff, $fields, $paths, $screened): array {
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
                        $screened[$take->id ?? 0] ?? '',
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
        $kept = $columns === null ? $heading : array_values(array_intersect($heading, $columns));
        if ($kept === [] || $kept === $heading) {
            return [$heading, $table];
        }
        $at = array_flip($heading);

        return [
            $kept,
            array_map(static fn(array $row): array => array_map(static fn(string $name): mixed => $row[$at[$name]], $kept), $table),
        ];
    }

    /** @return list<string> what a log can have beside the production's own fields */
    public static function columns(Production $production): array
    {
        return self::heading(self::fieldsOf($production));
    }

    /**
     * @param  list<string>  $heading
     * @param  list<list<scalar|null>>  $rows
     */
    public static function workbook(string $file, array $heading, array $rows): void
    {
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($file);
        $writer->addRow(WriterEntityFactory::createRowFromArray($heading));
        foreach ($rows as $row) {
            // Text stays text, whatever it begins with.
            $writer->addRow(WriterEntityFactory::createRowFromArray(array_map(CsvWriter::cell(...), $row)));
        }
        $writer->close();
    }

    /** @return list<Field> every field of the production that is no mark and no part of the slate; marks share a column */
    private static function fieldsOf(Production $production): array
    {
        return array_values(
            array_filter(
                $production->fields()->all(),
                static fn(Field $field): bool => $field->type !== FieldType::Slate &&
                    ($field->type !== FieldType::YesNo || $field->isOwn()),
            ),
        );
    }

    /**
     * @param  list<Field>  $fields
     * @return list<string>
     */
    private static function heading(array $fields): array
    {
        return [
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
    }
}
