<?php

declare(strict_types=1);

namespace App\Http\Cards;

use App\Domain\Cards\AssignDevice;
use App\Domain\Cards\CardReport;
use App\Domain\Cards\CheckCard;
use App\Domain\Cards\ClaimVolume;
use App\Domain\Cards\ClipCheck;
use App\Domain\Cards\OffloadAll;
use App\Domain\Cards\OffloadCard;
use App\Domain\Cards\Readers;
use App\Domain\Cards\ReleaseCard;
use App\Domain\Cards\SetCardTemplate;
use App\Domain\Footage\Stores;
use App\Domain\Lineup\StateClock;
use App\Domain\Reports\MakeReport;
use App\Domain\Tasks\StartTask;
use App\Http\Answers;
use App\Http\Cards\Answers\CardAnswer;
use App\Http\Cards\Answers\CardDetailAnswer;
use App\Http\Cards\Answers\CardsStageAnswer;
use App\Http\Cards\Answers\ClockAnswer;
use App\Http\Cards\Answers\OffloadAllAnswer;
use App\Http\Cards\Answers\PlaceAnswer;
use App\Http\Cards\Answers\TemplateAnswer;
use App\Http\Cards\Answers\VolumeDetailAnswer;
use App\Http\Cards\Requests\CardDeviceRequest;
use App\Http\Cards\Requests\ClockRequest;
use App\Http\Cards\Requests\OffloadAllRequest;
use App\Http\Cards\Requests\OffloadRequest;
use App\Http\Cards\Requests\PlaceRequest;
use App\Http\Cards\Requests\ReleaseRequest;
use App\Http\Cards\Requests\SayDeviceRequest;
use App\Http\Cards\Requests\TemplateRequest;
use App\Http\Controller;
use App\Http\Shell\Answers\ChangedAnswer;
use App\Http\Shell\Answers\DoneAnswer;
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
use App\Support\Problem;
use Cartella\Core\Custody\PathTemplate;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Collection;

/** The bench: volumes in the readers, cards of the day, their offloads and their release. */
final class CardsController extends Controller
{
    public function index(Production $production, ShootDay $day, Readers $bench, Stores $stores, ClipCheck $check): JsonResponse
    {
        $cards = Card::query()
            ->with(['device', 'copies', 'releasedBy', 'production'])
            ->withSum(['clips' => static fn($query) => $query->whereIn('kind', ['picture', 'sound'])], 'duration_ticks')
            ->withCount('clips')
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
        $own = $cards->filter(static fn(Card $card): bool => $card->shoot_day_id === $day->id || $here->has($card->id));
        $looked = $bench->look($production, $volumes, $cards);
        $inReaders = array_column(
            array_filter($looked, static fn(array $volume): bool => $volume['state'] !== 'reused'),
            'known_card',
            'name',
        );

        $inAll = array_column(OffloadAll::of($looked, $day), 'name');
        $devices = $stores->known($production)->map(static fn(Store $store): ?int => $store->device())->all();

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
                            $stores,
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

    public function volume(Production $production, ShootDay $day, string $volume, Readers $bench): JsonResponse
    {
        $found = $bench->volume($production, $volume);
        $cards = Card::query()
            ->with(['device', 'copies'])
            ->where('production_id', $production->id)
            ->orderBy('id')
            ->get();
        [$seen] = $bench->look($production, collect([$found]), $cards);
        $known = $seen['state'] === 'reused' ? null : $cards->firstWhere('ulid', $seen['known_card']);

        return new JsonResponse(
            Answers::make(VolumeDetailAnswer::class, $seen + ['in_all' => false, 'list' => $bench->files($found, $known)]),
        );
    }

    /** Where a card would land, by the production's template or one that is being tried. */
    public function place(PlaceRequest $request, Production $production, ShootDay $day): JsonResponse
    {
        $input = $request->validated();
        $tried = (clone $production)->forceFill(['card_template' => $input['template'] ?? $production->card_template]);
        $device = ($input['device'] ?? null) === null ? null : $production->devices()->where('letter', $input['device'])->first();
        $card = isset($input['template'])
            ? null
            : Card::query()->with('copies')->where('production_id', $production->id)->where('roll', $input['roll'])->first();
        $place = Stores::placeOf($tried, $day, $device, $input['roll'], $card);

        return new JsonResponse(new PlaceAnswer($place['below'] === '' ? $place['name'] : $place['below'] . '/' . $place['name']));
    }

    public function template(TemplateRequest $request, Production $production, SetCardTemplate $set): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(new TemplateAnswer($set($production, self::who($request), $input['was'], $input['now'])));
    }

    public function offload(
        OffloadRequest $request,
        Production $production,
        ShootDay $day,
        string $volume,
        OffloadCard $offload,
    ): JsonResponse {
        $input = $request->validated();
        $device = ($input['device'] ?? null) === null ? null : self::deviceOf($production, $input['device']);
        $task = $offload(
            $production,
            self::who($request),
            $day,
            $volume,
            $input['roll'],
            $device,
            (bool) ($input['compare'] ?? false),
            $input['to'] ?? null,
        );

        return new JsonResponse(TaskAnswer::of($task), 202);
    }

    /** Every card that is surely one of the day; those that something has to be asked of are named. */
    public function offloadAll(OffloadAllRequest $request, Production $production, ShootDay $day, OffloadAll $offload): JsonResponse
    {
        $input = $request->validated();

        return new JsonResponse(
            Answers::make(OffloadAllAnswer::class, $offload($production, self::who($request), $day, $input['to'] ?? null)),
            202,
        );
    }

    /** The volume is this production's from now on, and hidden from the others. */
    public function claim(Request $request, Production $production, string $volume, Readers $bench): JsonResponse
    {
        ClaimVolume::take($bench->volume($production, $volume), $production, 'said by ' . self::who($request)->name);

        return new JsonResponse(new DoneAnswer());
    }

    public function giveBack(Production $production, string $volume, Readers $bench): JsonResponse
    {
        ClaimVolume::giveBack($bench->volume($production, $volume), $production);

        return new JsonResponse(new DoneAnswer());
    }

    private static function deviceOf(Production $production, string $letter): Device
    {
        return $production->devices()->where('letter', $letter)->first() ??
            throw Problem::refused('device.unknown', 'There is no such device in this production.', 'Choose one of the list.');
    }

    public function show(Production $production, Card $card, Stores $stores): JsonResponse
    {
        $card->load(['device', 'copies', 'releasedBy', 'day']);

        return new JsonResponse(
            Answers::make(
                CardDetailAnswer::class,
                $this->card($card, false, collect(), $stores) + [
                    'list' => $card
                        ->cardFiles()
                        ->orderByRaw('fault IS NULL')
                        ->orderBy('path')
                        ->limit(1000)
                        ->get(['path', 'size_bytes', 'algorithm', 'hash', 'copies', 'fault'])
                        ->toArray(),
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

    public function clock(ClockRequest $request, Production $production, Clip $clip, StateClock $state): JsonResponse
    {
        $input = $request->validated();
        $correction = $state($clip, self::who($request), $input['frame'], $input['reads'], $input['for']);

        return new JsonResponse(new ClockAnswer($correction));
    }

    public function cardReport(
        Request $request,
        Production $production,
        Card $card,
        string $kind,
        string $format,
        CardReport $report,
        MakeReport $make,
    ): Response {
        $card->load(['device', 'copies', 'releasedBy', 'day']);

        return $this->report($request, $production, $card->day, $card, $kind, $format, $report, $make);
    }

    public function dayReport(
        Request $request,
        Production $production,
        ShootDay $day,
        string $kind,
        string $format,
        CardReport $report,
        MakeReport $make,
    ): Response {
        return $this->report($request, $production, $day, null, $kind, $format, $report, $make);
    }

    /**
     * @param  'camera'|'sound'  $kind
     * @param  'pdf'|'csv'  $format
     */
    private function report(
        Request $request,
        Production $production,
        ShootDay $day,
        ?Card $card,
        string $kind,
        string $format,
        CardReport $report,
        MakeReport $make,
    ): Response {
        $name = CardReport::fileName($production, $day, $card, $kind, $format);

        return $format === 'csv'
            ? self::document($report->csv($day, $card, $kind), $name, 'csv')
            : self::made($make($day, self::who($request), $kind, $card), $name);
    }

    public function verify(Request $request, Production $production, Card $card, CheckCard $check): JsonResponse
    {
        return new JsonResponse(TaskAnswer::of($check($card, self::who($request))), 202);
    }

    /** Which device recorded some clips, or that they are imports of a kind. */
    public function device(SayDeviceRequest $request, Production $production, AssignDevice $assign): JsonResponse
    {
        $input = $request->validated();
        $device = ($input['device'] ?? null) === null ? null : self::deviceOf($production, $input['device']);
        $clips = $production->clips()->whereIn('ulid', $input['clips'])->get();
        if ($clips->count() !== count(array_unique($input['clips']))) {
            throw Problem::missing('One of those clips', 'Load the page again.');
        }

        return new JsonResponse(
            new ChangedAnswer($assign($production, self::who($request), $clips, $device, importKind: $input['import_kind'] ?? null)),
        );
    }

    public function release(ReleaseRequest $request, Production $production, Card $card, ReleaseCard $release, Stores $stores): JsonResponse
    {
        $input = $request->validated();
        $task = $release($card, self::who($request), $input['words'] ?? null);
        $tasks = $task === null || $task->refresh()->isOver() ? collect() : collect(['release.' . $card->id => $task]);

        return new JsonResponse(
            Answers::make(
                CardAnswer::class,
                $this->card($card->refresh()->load(['device', 'copies', 'releasedBy']), false, $tasks, $stores),
            ),
        );
    }

    /** Makes the proxy of one clip anew. */
    public function remake(Request $request, Production $production, Clip $clip, StartTask $start): JsonResponse
    {
        return new JsonResponse(
            TaskAnswer::of(
                $start($production, self::who($request), 'media', 'Proxy of ' . $clip->title(), ['clip' => $clip->id], "media.$clip->id"),
            ),
            202,
        );
    }

    /**
     * @param  \Illuminate\Support\Collection<string, Task>|\Illuminate\Support\Collection<non-falsy-string, Task>  $tasks
     * @param  array<string, int|null>|null  $devices  of the stores now, by key
     * @return array<string, mixed>
     */
    private function card(Card $card, bool $onBench, $tasks, Stores $stores, ?array $devices = null): array
    {
        $known = $stores->known($card->production);
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
