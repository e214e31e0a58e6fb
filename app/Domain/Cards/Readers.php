<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Models\Card;
use App\Models\CardFile;
use App\Models\Device;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Volume;
use App\Support\Folders;
use App\Support\Problem;
use Cartella\Core\Custody\CardUse;
use Cartella\Core\Custody\ShotDates;
use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\MediaNames;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\Cache;

/** The volumes that are in the readers, and what each of them is to a production. */
final class Readers
{
    public function __construct(private readonly ReaderWatch $watch) {}

    /**
     * @return Collection<int, Volume> a production's own and those that are nobody's yet, in natural order of their names,
     *     without their lists of files
     */
    public function volumes(Production $production): Collection
    {
        if (!ReaderWatch::isAlive()) {
            $this->watch->pass(true);
        }

        return self::of($production)
            ->get(['id', 'name', 'fingerprint', 'state', 'survey', 'production_id', 'claimed_why'])
            ->sort(static fn(Volume $x, Volume $y): int => strnatcasecmp($x->name, $y->name))
            ->values();
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Volume> */
    private static function of(Production $production)
    {
        return Volume::query()->where(static fn($query) => $query->whereNull('production_id')->orWhere('production_id', $production->id));
    }

    /** @throws Problem if no volume of that name is in a reader, or it is another production's */
    public function volume(Production $production, string $name): Volume
    {
        if (!ReaderWatch::isAlive()) {
            $this->watch->pass(true);
        }

        return self::of($production)->where('name', $name)->first() ?? throw self::gone($name);
    }

    /**
     * The volume as it is now, looked through once more.
     *
     * @throws Problem if no volume of that name is in a reader
     */
    public function fresh(Production $production, string $name): Volume
    {
        if (!in_array($name, ReaderWatch::namesIn(Folders::readers()), true)) {
            throw self::gone($name);
        }
        $this->watch->look($name);

        return $this->volume($production, $name);
    }

    /** @throws Problem if no volume of that name is in a reader, or it is another production's */
    public function path(Production $production, string $name): string
    {
        $isOthers = Volume::query()
            ->where('name', $name)
            ->whereNotNull('production_id')
            ->where('production_id', '!=', $production->id)
            ->exists();
        if ($isOthers || !in_array($name, ReaderWatch::namesIn(Folders::readers()), true)) {
            throw self::gone($name);
        }

        return Folders::readers($name);
    }

    private static function gone(string $name): Problem
    {
        return Problem::missing('The card ' . UnableToReadMedia::quote($name), 'Put it in the reader again; it shows up by itself.');
    }

    /**
     * What every volume is to a production.
     *
     * @param  Collection<int, Volume>  $volumes
     * @param  Collection<int, Card>  $cards  the production's, in their order
     * @return list<array<string, mixed>>
     */
    public function look(Production $production, Collection $volumes, Collection $cards): array
    {
        $devices = $production->devices()->whereNull('retired_at')->get()->keyBy('letter');
        $days = $production
            ->days()
            ->orderBy('date')
            ->get()
            ->mapWithKeys(static fn(ShootDay $day): array => [$day->number => $day->date->format('Y-m-d')])
            ->all();
        $isAlone = Production::query()->count() === 1;
        $otherDays = ShootDay::query()
            ->where('production_id', '!=', $production->id)
            ->distinct()
            ->pluck('date')
            ->map(static fn($date): string => $date->format('Y-m-d'))
            ->all();

        return $volumes
            ->map(function (Volume $volume) use ($devices, $days, $cards, $isAlone, $otherDays): array {
                $survey = $volume->survey;
                $known = $this->known($volume, $cards);
                // A card that was here before is of the device that it was said to be of.
                [$device, $why] = in_array($known['state'], ['seen', 'grown'], true)
                    ? [$known['card']->device, 'as before']
                    : $this->suggest($volume, $devices, $cards);
                $dated = ShotDates::of($survey['dates'], $days, $device !== null);

                $isOurs = $volume->production_id !== null;
                $ask = match (true) {
                    in_array($known['state'], ['seen', 'grown'], true) => null,
                    $device === null && $survey['clips'] > 0 && !$this->isNamedFolder($volume) => 'Nothing says which device recorded it.',
                    $dated->date !== null && $dated->day === null
                        => "Its clips are dated $dated->date, which is no shoot day of this production.",
                    !$isOurs && $dated->date !== null && in_array($dated->date, $otherDays, true)
                        => 'Another production has a shoot day of that date as well.',
                    !$isOurs && !$isAlone && $dated->date === null && $survey['clips'] > 0 => 'Nothing says which production it is of.',
                    default => null,
                };

                return [
                    'is_ours' => $isOurs,
                    'ours_why' => $volume->claimed_why,
                    'ask' => $ask,
                    'project' => $survey['project'] ?? null,
                    'name' => $volume->name,
                    'files' => $survey['files'],
                    'size_bytes' => $survey['bytes'],
                    'clips' => $survey['clips'],
                    'first' => $survey['first'],
                    'last' => $survey['last'],
                    'device' => $device?->letter,
                    'kind' => match (true) {
                        $device === null => 'folder',
                        $device->isRecorder() || ($survey['clips'] > 0 && $survey['sounds'] === $survey['clips']) => 'recorder',
                        default => 'camera',
                    },
                    'why' => $why,
                    'problems' => [...$dated->problems, ...array_column($survey['problems'], 'text')],
                    'problem_count' => count($dated->problems) + $survey['problemCount'],
                    'date' => $dated->date,
                    'day' => $dated->day,
                    'roll' => $known['state'] === 'reused' ? $this->nextRoll($volume->name, $cards) : $known['card']->roll ?? $volume->name,
                    // What was taken away comes back like a card that was never here.
                    'state' => $known['card']?->away_at !== null && $known['state'] !== 'reused' ? 'new' : $known['state'],
                    'known_roll' => $known['card']?->roll,
                    'known_card' => $known['card']?->ulid,
                    'known_files' => $known['known'],
                    'new_files' => $known['new'],
                ];
            })
            ->all();
    }

    /** Whether every clip of a volume lies in a folder that says what it is: music, effects, graphics. */
    private function isNamedFolder(Volume $volume): bool
    {
        return (bool) Cache::remember("bench.named.$volume->id.$volume->state", 86_400, function () use ($volume): bool {
            foreach (array_keys($this->sizes($volume)) as $path) {
                if (MediaNames::isClip((string) $path) && MediaNames::namedKind((string) $path) === null) {
                    return false;
                }
            }

            return true;
        });
    }

    /** @return list<array{path: string, size_bytes: int, kind: string|null, is_new: bool}> at most $limit, what is new first */
    public function files(Volume $volume, ?Card $card, int $limit = 500): array
    {
        $sizes = $this->sizes($volume);
        $known = $card === null ? [] : $this->knownSizes($card);
        $files = [];
        foreach ($sizes as $path => $bytes) {
            $path = (string) $path;
            $files[] = [
                'path' => $path,
                'size_bytes' => $bytes,
                'kind' => MediaNames::isJunk($path) ? null : MediaNames::kindOf($path),
                'is_new' => ($known[$path] ?? null) !== $bytes,
            ];
        }
        usort($files, static fn(array $x, array $y): int => $y['is_new'] <=> $x['is_new'] ?: strnatcmp($x['path'], $y['path']));

        return array_slice($files, 0, $limit);
    }

    /**
     * Whether this card was here before: all of it, part of it, or only its name with other content.
     *
     * @param  Collection<int, Card>  $cards
     * @return array{state: 'new'|'seen'|'grown'|'reused', card: Card|null, known: int, new: int}
     */
    private function known(Volume $volume, Collection $cards): array
    {
        $same = $cards->last(static fn(Card $card): bool => $card->fingerprint === $volume->fingerprint && $card->state !== 'copying');
        if ($same !== null) {
            return ['state' => 'seen', 'card' => $same, 'known' => $volume->survey['files'], 'new' => 0];
        }
        $namesake = $cards->last(static fn(Card $card): bool => $card->volume === $volume->name);
        if ($namesake === null) {
            return ['state' => 'new', 'card' => null, 'known' => 0, 'new' => $volume->survey['files']];
        }
        [$known, $goesOn] = Cache::remember(
            "bench.known.$volume->id.$volume->state.$namesake->id." . ($namesake->updated_at?->getTimestamp() ?? 0),
            86_400,
            fn(): array => $this->compare($volume, $namesake),
        );

        return [
            'state' => $goesOn ? 'grown' : 'reused',
            'card' => $namesake,
            'known' => $known,
            'new' => $volume->survey['files'] - $known,
        ];
    }

    /** @return array{int, bool} files that the card and the volume have in common, and whether the card goes on with them */
    private function compare(Volume $volume, Card $card): array
    {
        $use = CardUse::of($this->sizes($volume), $this->knownSizes($card));

        return [$use->known, $use->goesOn];
    }

    /** @return array<string, int> bytes by path, as valid UTF-8 */
    private function sizes(Volume $volume): array
    {
        $sizes = [];
        foreach (Volume::unpack((string) ($volume->list ?? Volume::query()->whereKey($volume->id)->value('list'))) as $path => $bytes) {
            $sizes[mb_scrub((string) $path)] = $bytes;
        }

        return $sizes;
    }

    /** @return array<string, int> bytes by path, of what was copied from the card */
    private function knownSizes(Card $card): array
    {
        return CardFile::query()
            ->where('card_id', $card->id)
            ->where('copies', '>', 0)
            ->pluck('size_bytes', 'path')
            ->map(static fn($bytes): int => (int) $bytes)
            ->all();
    }

    /** @param  Collection<int, Card>  $cards */
    private function nextRoll(string $name, Collection $cards): string
    {
        $taken = $cards->pluck('roll')->flip();
        for ($use = 2; $taken->has("$name-$use"); $use++) {
        }

        return "$name-$use";
    }

    /**
     * @param  Collection<string, Device>  $devices  by letter
     * @param  Collection<int, Card>  $cards
     * @return array{Device|null, string}
     */
    private function suggest(Volume $volume, Collection $devices, Collection $cards): array
    {
        $survey = $volume->survey;
        if (
            $survey['report'] !== null &&
            preg_match('/^DEVICE\s+(?:camera|recorder)\s+([A-Z])\b/mi', $survey['report'], $part) === 1 &&
            $devices->has(strtoupper($part[1]))
        ) {
            return [$devices[strtoupper($part[1])], 'from the report on the card'];
        }
        if ($survey['tape'] !== null && preg_match('/\A([A-Z])\d{3}/', $survey['tape'], $part) === 1 && $devices->has($part[1])) {
            return [$devices[$part[1]], 'from its recordings, tape ' . UnableToReadMedia::quote($survey['tape'])];
        }
        if (preg_match('/\A([A-Z])\d{3}/', $volume->name, $part) === 1 && $devices->has($part[1])) {
            return [$devices[$part[1]], 'from its name'];
        }
        $earlier = $cards->last(
            static fn(Card $card): bool => $card->device !== null && self::label($card->volume) === self::label($volume->name),
        );
        if ($earlier !== null && self::label($volume->name) !== '') {
            return [$earlier->device, 'like ' . $earlier->roll . ' before it'];
        }

        return [null, 'no device is named; its folders become bins'];
    }

    /** A name without its count: cards of one device are often named alike. */
    private static function label(string $name): string
    {
        return strtolower((string) preg_replace('/[\d_. -]+\z/', '', $name));
    }
}
