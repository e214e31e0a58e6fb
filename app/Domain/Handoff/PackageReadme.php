<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Models\Handoff;
use App\Support\Pdf;
use Cartella\Core\Exchange\CsvWriter;

/** One page that says what a package is, with a picture of each scene; and what stood open when it went. */
final class PackageReadme
{
    /** Scenes with a picture, as one page holds them. */
    private const SCENES = 12;

    /** @param  array<string, mixed>  $summary  as {@see PackingPlans::summary} */
    public function pdf(Handoff $handoff, PackingPlan $plan, array $summary): string
    {
        $scenes = [];
        foreach ($plan->clips as $clip) {
            $take = $clip->parts->first()?->take;
            if ($take === null || !$clip->isPicture()) {
                continue;
            }
            $scene = &$scenes[$take->scene];
            $scene ??= ['scene' => $take->scene, 'takes' => [], 'picture' => null, 'key' => $take->sort_key];
            $scene['takes'][$take->id] = true;
            $scene['picture'] ??= self::picture(MediaFolder::of($clip)->read(MediaFile::FirstPicture));
            unset($scene);
        }
        usort($scenes, static fn(array $x, array $y): int => $x['key'] <=> $y['key']);

        return Pdf::of(
            'package',
            [
                'production' => $handoff->production,
                'handoff' => $handoff,
                'summary' => $summary,
                'scenes' => array_map(
                    static fn(array $one): array => ['takes' => count($one['takes'])] + $one,
                    array_slice($scenes, 0, self::SCENES),
                ),
                'more' => max(0, count($scenes) - self::SCENES),
                'waived' => $plan->choice->waived,
                'answers' => HandoffQuestions::answersGoingWith($handoff),
            ],
            'portrait',
        );
    }

    /** What stood open when it went, and why it went so. */
    public static function points(Handoff $handoff): string
    {
        return CsvWriter::write(
            ['Point', 'Why it goes along', 'By', 'At'],
            array_map(
                static fn(array $one): array => [$one['title'], $one['reason'], $one['by'], $one['at']],
                PackageChoice::fromArray($handoff->chosen)->waived,
            ),
        );
    }

    /** The same to print. */
    public static function pointsPdf(Handoff $handoff): string
    {
        return Pdf::of(
            'points',
            ['handoff' => $handoff, 'production' => $handoff->production, 'waived' => PackageChoice::fromArray($handoff->chosen)->waived],
            'portrait',
        );
    }

    private static function picture(string $file): ?string
    {
        return is_file($file) ? 'data:image/jpeg;base64,' . base64_encode((string) file_get_contents($file)) : null;
    }
}
