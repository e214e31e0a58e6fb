<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Clip;
use App\Models\Production;
use App\Models\Subclip;
use App\Support\Clock;
use Cartella\Core\Exchange\CsvWriter;
use Illuminate\Support\Collection;

/** What people named on the clips of a package, as tables: `markers.csv` and `subclips.csv`; null where there is nothing. */
final class PackagePieces
{
    /** @param  Collection<int, Clip>  $clips */
    public static function markers(Collection $clips, Production $production, PackagePaths $paths): ?string
    {
        $rows = [];
        foreach ($clips as $clip) {
            foreach ($clip->markers as $marker) {
                $rows[] = self::row($clip, $production, $paths, $marker->in_ticks, $marker->out_ticks, $marker->name, [
                    $marker->about?->value,
                    $marker->note,
                    $marker->user->name ?? 'in the file',
                ]);
            }
        }

        return $rows === [] ? null : CsvWriter::write([...self::HEADING, 'About', 'Note', 'By'], $rows);
    }

    /** @param  Collection<int, Clip>  $clips */
    public static function subclips(Collection $clips, Production $production, PackagePaths $paths): ?string
    {
        $rows = [];
        foreach ($clips as $clip) {
            foreach ($clip->subclips->sortBy(static fn(Subclip $one): int => (int) $one->in_ticks) as $one) {
                $rows[] = self::row(
                    $clip,
                    $production,
                    $paths,
                    (int) $one->in_ticks,
                    $one->out_ticks ?? $clip->duration_ticks,
                    $one->name,
                    [
                        Clock::label($one->handle_ticks, $clip->rate() ?? $production->rate()),
                        $one->channels === null ? '' : implode(' ', $one->channels),
                    ],
                );
            }
        }

        return $rows === [] ? null : CsvWriter::write([...self::HEADING, 'Handles', 'Channels'], $rows);
    }

    private const HEADING = ['Clip', 'Original name', 'Take', 'File', 'In', 'Out', 'Name'];

    /**
     * @param  list<string|null>  $more
     * @return list<string|null>
     */
    private static function row(
        Clip $clip,
        Production $production,
        PackagePaths $paths,
        int $inTicks,
        ?int $outTicks,
        string $name,
        array $more,
    ): array {
        $rate = $clip->rate() ?? $production->rate();
        $at = static fn(?int $ticks): ?string => $ticks === null ? null : Clock::label((int) $clip->start_ticks + $ticks, $rate);

        return [$clip->title(), $clip->name, $clip->slates(), $paths->of($clip), $at($inTicks), $at($outTicks), $name, ...$more];
    }
}
