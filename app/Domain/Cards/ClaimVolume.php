<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Card;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Volume;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Custody\ShotDates;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Illuminate\Support\Facades\DB;

/**
 * Whose card a volume is. It becomes a production's by itself when exactly one fits: it was there before, it says so on
 * the card, or its clips were shot on one of its days; else when somebody works with it. Others neither see nor copy it.
 */
final class ClaimVolume
{
    /** @throws Problem as for a volume that is not there, if it is another production's */
    public static function take(Volume $volume, Production $production, string $why): void
    {
        DB::transaction(static function () use ($volume, $production, $why): void {
            $locked = Volume::query()
                ->whereKey($volume->id)
                ->lockForUpdate()
                ->first(['id', 'production_id']);
            if ($locked === null || ($locked->production_id !== null && $locked->production_id !== $production->id)) {
                throw Problem::missing(
                    'The card ' . UnableToReadMedia::quote($volume->name),
                    'Put it in the reader again; it shows up by itself.',
                );
            }
            if ($locked->production_id === null) {
                Volume::query()
                    ->whereKey($volume->id)
                    ->update(['production_id' => $production->id, 'claimed_why' => $why]);
                foreach (Production::query()->pluck('id') as $id) {
                    Live::tell((int) $id, Topic::Cards);
                }
            }
        });
    }

    /** @throws Problem if it is being copied */
    public static function giveBack(Volume $volume, Production $production): void
    {
        if (Card::query()->where('production_id', $production->id)->where('volume', $volume->name)->where('state', 'copying')->exists()) {
            throw Problem::refused('volume.busy', "$volume->name is being copied.", 'Wait until it is done, or stop it.');
        }
        Volume::query()
            ->whereKey($volume->id)
            ->where('production_id', $production->id)
            ->update(['production_id' => null, 'claimed_why' => 'given back']);
        foreach (Production::query()->pluck('id') as $id) {
            Live::tell((int) $id, Topic::Cards);
        }
    }

    /** Gives volumes that are nobody's to the one production that they fit; one that was given back waits for a click. */
    public static function byThemselves(): bool
    {
        $open = Volume::query()
            ->whereNull('production_id')
            ->whereNull('claimed_why')
            ->get(['id', 'name', 'fingerprint', 'survey']);
        if ($open->isEmpty()) {
            return false;
        }
        $days = ShootDay::query()
            ->orderBy('date')
            ->get(['production_id', 'number', 'date'])
            ->groupBy('production_id')
            ->map(
                static fn($own): array => $own
                    ->mapWithKeys(static fn(ShootDay $day): array => [$day->number => $day->date->format('Y-m-d')])
                    ->all(),
            )
            ->all();
        $names = Production::query()->pluck('name', 'id')->all();
        $changed = false;
        foreach ($open as $volume) {
            [$production, $why] = self::fitting($volume, $names, $days);
            if ($production !== null) {
                $changed =
                    Volume::query()
                        ->whereKey($volume->id)
                        ->whereNull('production_id')
                        ->update(['production_id' => $production, 'claimed_why' => $why]) > 0 || $changed;
            }
        }

        return $changed;
    }

    /**
     * @param  array<int, string>  $names  of productions
     * @param  array<int, array<int, string>>  $days  dates by number, by production
     * @return array{int|null, string}
     */
    private static function fitting(Volume $volume, array $names, array $days): array
    {
        $known = Card::query()->where('fingerprint', $volume->fingerprint)->distinct()->pluck('production_id')->all();
        if ($known !== []) {
            return count($known) === 1 ? [(int) $known[0], 'it was here before'] : [null, ''];
        }
        $says = mb_strtolower(trim((string) ($volume->survey['project'] ?? '')));
        $said = $says === '' ? [] : array_keys(array_filter($names, static fn(string $name): bool => mb_strtolower($name) === $says));
        if (count($said) === 1) {
            return [$said[0], 'its recordings name it'];
        }
        $fits = array_keys(
            array_filter($days, static fn(array $own): bool => ShotDates::of($volume->survey['dates'], $own, true)->day !== null),
        );

        return count($fits) === 1 ? [$fits[0], 'it was shot on one of its days'] : [null, ''];
    }
}
