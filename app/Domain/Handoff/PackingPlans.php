<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Bins\BinRows;
use App\Domain\Bins\BinTree;
use App\Domain\Footage\GiveNames;
use App\Domain\Sequences\Recipes;
use App\Domain\Tasks\Room;
use App\Models\Production;

/** Makes packing plans, and says what is in one in a few rows. */
final class PackingPlans
{
    /** Parts of a package in the order in which they are listed, and what they hold. */
    private const PARTS = [
        'proxies' => 'pictures as proxies, with timecode and reel',
        'originals' => 'recordings of the cameras, as on their cards',
        'sound' => 'production sound',
        'imports' => 'music, effects and other imports, as they came',
        'takes' => 'every take with its angles, the recorder\'s channels under the picture',
        'cuts' => 'reels and cuts',
        'bins' => 'bins as they are now, also those that fill themselves',
    ];

    private const SOUNDS = [
        'recorded' => 'production sound as recorded',
        'split' => 'production sound, a file for each channel',
        'mix' => 'production sound, as it is heard here',
        'none' => 'production sound',
    ];

    public function __construct(
        private readonly PackageClips $clips,
        private readonly BinRows $bins,
        private readonly BinTree $tree,
        private readonly GiveNames $naming,
        private readonly Room $room,
        private readonly Recipes $recipes,
    ) {}

    /** The plan of a package that is written now: its reels are brought up to date first. */
    public function ofNow(Production $production, PackageChoice $choice): PackingPlan
    {
        $plan = $this->of($production, $choice);
        $isOther = false;
        foreach ($plan->items as $item) {
            $isOther = ($item->sequence !== null && $this->recipes->again($item->sequence) !== null) || $isOther;
        }

        return $isOther ? $this->of($production, $choice) : $plan;
    }

    public function of(Production $production, PackageChoice $choice): PackingPlan
    {
        return new PackingPlan($production, $choice, $this->clips, $this->bins, $this->tree, $this->naming);
    }

    /** @return array<string, mixed> */
    public function summary(PackingPlan $plan): array
    {
        $rows = [];
        foreach (self::PARTS as $part => $what) {
            $items = array_values(array_filter($plan->items, static fn(PackingItem $item): bool => $item->part() === $part));
            if ($items === []) {
                continue;
            }
            $news = array_count_values(array_filter(array_map(static fn(PackingItem $item): ?string => $plan->news($item), $items)));
            $rows[] = [
                'folder' => "$part/",
                'what' => $part === 'sound' ? self::SOUNDS[$plan->choice->sound] : $what,
                'new' => $news['new'] ?? 0,
                'changed' => $news['changed'] ?? 0,
                'moved' => $news['moved'] ?? 0,
                'count' => count($items),
                'bytes' => array_sum(array_map(static fn(PackingItem $item): int => $item->bytes, $items)),
                'names' => array_map(
                    static fn(PackingItem $item): string => $item->name !== '' ? $item->name : basename($item->path),
                    array_slice($items, 0, 400),
                ),
            ];
        }
        $takes = $plan->clips->flatMap(static fn($clip) => $clip->parts->pluck('take_id'))->unique()->count();

        return [
            'since' => $plan->since,
            'clips' => $plan->clips->count(),
            'takes' => $takes,
            'bytes' => $plan->bytes(),
            'free_bytes' => $this->room->freeBytes(Delivery::room()),
            'rows' => $rows,
        ];
    }
}
