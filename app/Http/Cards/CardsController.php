<?php

declare(strict_types=1);

namespace App\Http\Cards;

use App\Domain\Cards\AssignDevice;
use App\Domain\Cards\CheckCard;
use App\Domain\Cards\ClipCheck;
use App\Domain\Cards\OffloadAll;
use App\Domain\Cards\Readers;
use App\Domain\Cards\ReleaseCard;
use App\Domain\Cards\Returned;
use App\Domain\Footage\Stores;
use App\Http\Answers;
use App\Http\Cards\Answers\CardAnswer;
use App\Http\Cards\Answers\CardDetailAnswer;
use App\Http\Cards\Answers\CardsStageAnswer;
use App\Http\Cards\Requests\CardDeviceRequest;
use App\Http\Cards\Requests\ReleaseRequest;
use App\Http\Controller;
use App\Http\Shell\Answers\ChangedAnswer;
use App\Http\Shell\Answers\TaskAnswer;
use App\Models\Card;
use App\Models\CardCopy;
use App\Models\CardRelease;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Store;
use App\Models\Task;
use Cartella\Core\Custody\PathTemplate;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Collection;

/** The bench: volumes in the readers, cards of the day, their offloads and their release. */
final class CardsController extends Controller
{
    public function index(Production $production, ShootDay $day, Readers $bench, Stores $stores, ClipCheck $check): JsonResponse
    {
        $cards = Card::query()
            ->with(['device', 'copies', 'releasedBy', 'production', 'upload'])
            ->withSum(
                ['clips' => static fn($query) => $query->whereNull('clips.away_at')->whereIn('kind', ['picture', 'sound'])],
                'duration_ticks',
            )
            ->withCount([
                'clips' => static fn($query) => $query->whereNull('clips.away_at'),
                'clips as gone_count' => static fn($query) => $query->whereColumn('clips.away_at', 'cards.away_at'),
            ])
            ->where('production_id', $production->id)
            ->orderBy('id')
            ->get();
        $tasks = Task::query()
            ->where('production_id', $production->id)
            ->whereIn('kind', ['offload', 'catalogue', 'verify', 'release'])
            ->whereNull('ended_at')
            ->get()
            ->keyBy(static fn(Task $task): string => $task->kind . '.' . $task->subject['card']);
        $volumes = $bench->volumes($production);
        // A card that goes on being shot is a card of each of its days.
        $here = Clip::query()->where('shoot_day_id', $day->id)->whereNotNull('card_id')->distinct()->pluck('card_id')->flip();
        [$away, $own] = $cards
            ->filter(static fn(Card $card): bool => $card->shoot_day_id === $day->id || $here->has($card->id))
            ->partition(static fn(Card $card): bool => $card->away_at !== null);
        $looked = $bench->look($production, $volumes, $cards);
        $inReaders = array_column(
            array_filter($looked, static fn(array $volume): bool => $volume['state'] !== 'reused'),
            'known_card',
            'name',
        );

        $inAll = array_column(OffloadAll::of($looked, $day), 'name');
        $known = $stores->known($production);
        $devices = $known->map(static fn(Store $store): ?int => $store->device())->all();

        return new JsonResponse(
            Answers::make(CardsStageAnswer::class, [
                'volumes' => array_values(
                    array_map(
                        static fn(array $volume): array => $volume + [
                            'in_all' => $volume['ask'] === null && in_array($volume['name'], $inAll, true),
                        ],
                        array_filter($looked, static fn(array $volume): bool => !self::isOnItsCard($volume, $cards)),
                    ),
                ),
                'cards' => $own
                    ->map(
                        fn(Card $card): array => $this->card(
                            $card,
                            ($inReaders[$card->volume] ?? null) === $card->ulid,
                            $tasks,
                            $known,
                            $devices,
                        ),
                    )
                    ->values()
                    ->all(),
                'stores' => $stores
                    ->inUse($production)
                    ->map(
                        static fn(Store $store): array => [
                            'key' => $store->key,
                            'name' => $store->name,
                            'free_bytes' => $store->freeBytes(),
                            'is_there' => $store->isThere(),
                            'device' => $devices[$store->key] ?? null,
                        ],
                    )
                    ->values()
                    ->all(),
                'away' => $away
                    ->map(
                        static fn(Card $card): array => [
                            'ulid' => $card->ulid,
                            'roll' => $card->roll,
                            'clips' => (int) $card->getAttribute('gone_count'),
                            'at' => $card->away_at->toIso8601String(),
                        ],
                    )
                    ->values()
                    ->all(),
                'check' => $check->of($day),
                'template' => $production->card_template ?? PathTemplate::DEFAULT,
                'panel' => config('cartella.card_panel'),
            ]),
        );
    }

    /**
     * Whether a volume is shown on its card: it is in the reader still, and nothing on it is new; or the card is not
     * whole yet, and whatever is new comes in when it is tried again.
     *
     * @param  array<string, mixed>  $volume
     * @param  Collection<int, Card>  $cards
     */
    private static function isOnItsCard(array $volume, Collection $cards): bool
    {
        return $cards->contains(
            static fn(Card $card): bool => $card->volume === $volume['name'] &&
                ($card->state === 'copying' ||
                    ($card->ulid === $volume['known_card'] &&
                        ($volume['state'] === 'seen' || ($volume['state'] === 'grown' && $card->state !== 'verified')))),
        );
    }

    public function show(Production $production, Card $card, Stores $stores): JsonResponse
    {
        $card->load(['device', 'copies', 'releasedBy', 'day']);

        return new JsonResponse(
            Answers::make(
                CardDetailAnswer::class,
                $this->card($card, false, collect(), $stores->known($production)) + [
                    'list' => $card
                        ->cardFiles()
                        ->orderByRaw('fault IS NULL')
                        ->orderBy('path')
                        ->limit(1000)
                        ->get(['path', 'size_bytes', 'algorithm', 'hash', 'copies', 'fault'])
                        ->toArray(),
                    'found' => Returned::told($card),
                    'releases' => $card
                        ->releases()
                        ->with('user')
                        ->get()
                        ->map(
                            static fn(CardRelease $release): array => [
                                'at' => $release->created_at->toIso8601String(),
                                'by' => $release->user?->name,
                                'evidence' => $release->evidence,
                            ],
                        )
                        ->all(),
                ],
            ),
        );
    }

    /** The whole card is another device's; so are its clips. */
    public function cardDevice(CardDeviceRequest $request, Production $production, Card $card, AssignDevice $assign): JsonResponse
    {
        $input = $request->validated();
        $device = $input['device'] === null ? null : self::deviceOf($production, $input['device']);
        $changed = $assign->card($production, self::who($request), $card, $input['was'] ?? null, $device);

        return new JsonResponse(new ChangedAnswer($changed));
    }

    public function verify(Request $request, Production $production, Card $card, CheckCard $check): JsonResponse
    {
        return new JsonResponse(TaskAnswer::of($check($card, self::who($request))), 202);
    }

    public function release(ReleaseRequest $request, Production $production, Card $card, ReleaseCard $release, Stores $stores): JsonResponse
    {
        $input = $request->validated();
        $task = $release($card, self::who($request), $input['words'] ?? null);
        $tasks = $task === null || $task->refresh()->isOver() ? collect() : collect(['release.' . $card->id => $task]);

        return new JsonResponse(
            Answers::make(
                CardAnswer::class,
                $this->card($card->refresh()->load(['device', 'copies', 'releasedBy']), false, $tasks, $stores->known($card->production)),
            ),
        );
    }

    /**
     * @param  \Illuminate\Support\Collection<string, Task>|\Illuminate\Support\Collection<non-falsy-string, Task>  $tasks
     * @param  \Illuminate\Support\Collection<string, Store>  $known  stores, by key
     * @param  array<string, int|null>|null  $devices  of the stores now, by key
     * @return array<string, mixed>
     */
    private function card(Card $card, bool $onBench, $tasks, \Illuminate\Support\Collection $known, ?array $devices = null): array
    {
        $order = array_flip($known->keys()->all());
        $copies = $card->copies->sortBy(static fn(CardCopy $copy): int => $order[$copy->store] ?? 99)->values();
        $devices ??= $known->map(static fn(Store $store): ?int => $store->device())->all();
        $on = $copies
            ->filter(static fn(CardCopy $copy): bool => $copy->isWhole())
            ->map(static fn(CardCopy $copy): ?int => $devices[$copy->store] ?? $copy->device)
            ->filter()
            ->unique();
        $task =
            $tasks->get('offload.' . $card->id) ??
            ($tasks->get('release.' . $card->id) ?? ($tasks->get('verify.' . $card->id) ?? $tasks->get('catalogue.' . $card->id)));

        return [
            'ulid' => $card->ulid,
            'roll' => $card->roll,
            'volume' => $card->volume,
            'device' => $card->device?->letter,
            'device_note' => $card->device?->note,
            'kind' => $card->device?->kind,
            'state' => $card->state,
            'files' => $card->files,
            'verified_files' => $card->verified_files,
            'size_bytes' => $card->size_bytes,
            'faults' => $card->faults ?? [],
            'is_safe' => $card->isSafe(),
            'is_one_disk' => $card->isSafe() && $on->count() < 2,
            'matched_files' => $card->matched_files,
            'chosen_stores' => $card->chosen_stores,
            'on_bench' => $onBench,
            'verified_at' => $card->verified_at?->toIso8601String(),
            'released_at' => $card->released_at?->toIso8601String(),
            'released_by' => $card->releasedBy?->name,
            'use_number' => $card->use_number,
            'first_at' => $card->first_at,
            'last_at' => $card->last_at,
            'clock_ticks' => $card->clock_ticks,
            'is_dropped' => $card->volume === '',
            'upload' => $card->upload?->ulid,
            'clips' => $card->clips_count ?? $card->clips()->count(),
            'running_ticks' => (int) ($card->clips_sum_duration_ticks ?? 0),
            'copies' => $copies
                ->map(
                    static fn(CardCopy $copy): array => [
                        'store' => $known->get($copy->store)->name ?? $copy->store,
                        'path' => $copy->path,
                        'manifest' => $copy->manifest,
                        'read_from' => $copy->read_from,
                        'is_whole' => $copy->isWhole(),
                        'checked_at' => $copy->checked_at?->toIso8601String(),
                        'differences' => $copy->differences,
                    ],
                )
                ->all(),
            'task' => $task === null ? null : TaskAnswer::of($task),
        ];
    }
}
