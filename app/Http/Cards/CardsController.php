<?php

declare(strict_types=1);

namespace App\Http\Cards;

use App\Domain\Cards\AssignDevice;
use App\Domain\Cards\Bench;
use App\Domain\Cards\CardReport;
use App\Domain\Cards\CheckCard;
use App\Domain\Cards\ClipCheck;
use App\Domain\Cards\OffloadCard;
use App\Domain\Cards\ReleaseCard;
use App\Domain\Cards\Stores;
use App\Domain\Lineup\StateClock;
use App\Domain\Log\ChangeLog;
use App\Http\Controller;
use App\Http\Shell\ProductionController;
use App\Models\Card;
use App\Models\CardRelease;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Task;
use App\Support\Live;
use App\Support\Problem;
use Cartella\Core\Custody\PathTemplate;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** The bench: volumes in the readers, cards of the day, their offloads and their release. */
final class CardsController extends Controller
{
    public function index(Production $production, ShootDay $day, Bench $bench, Stores $stores, ClipCheck $check): JsonResponse
    {
        $cards = Card::query()->with(['device', 'copies', 'releasedBy'])->withSum(['clips' => static fn ($query) => $query->whereIn('kind', ['picture', 'sound'])], 'duration_ticks')->withCount('clips')
            ->where('production_id', $production->id)->orderBy('id')->get();
        $tasks = Task::query()->where('production_id', $production->id)->whereIn('kind', ['offload', 'catalogue', 'verify'])->whereNull('ended_at')->get()->keyBy(static fn (Task $task): string => $task->kind.'.'.$task->subject['card']);
        $volumes = $bench->volumes();
        // A card that goes on being shot is a card of each of its days.
        $here = Clip::query()->where('shoot_day_id', $day->id)->whereNotNull('card_id')->distinct()->pluck('card_id')->flip();
        $own = $cards->filter(static fn (Card $card): bool => $card->shoot_day_id === $day->id || $here->has($card->id));
        $looked = $bench->look($production, $volumes, $cards);
        $inReaders = array_column(array_filter($looked, static fn (array $volume): bool => $volume['state'] !== 'reused'), 'known_card', 'name');

        return new JsonResponse([
            'volumes' => array_values(array_filter($looked, static fn (array $volume): bool => ! self::isOnItsCard($volume, $cards))),
            'cards' => $own->map(fn (Card $card): array => $this->card($card, ($inReaders[$card->volume] ?? null) === $card->ulid, $tasks))->values()->all(),
            'stores' => array_map(static fn (string $key, array $store): array => ['key' => $key, 'name' => $store['name'], 'free_bytes' => $stores->freeBytes($key)], array_keys($stores->all()), $stores->all()),
            'check' => $check->of($day),
            'template' => $production->card_template ?? PathTemplate::DEFAULT,
            'panel' => config('cartella.card_panel'),
        ]);
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
        return $cards->contains(static fn (Card $card): bool => $card->volume === $volume['name'] && ($card->state === 'copying' || ($card->ulid === $volume['known_card'] && ($volume['state'] === 'seen' || ($volume['state'] === 'grown' && $card->state !== 'verified')))));
    }

    public function volume(Production $production, ShootDay $day, string $volume, Bench $bench): JsonResponse
    {
        $found = $bench->volume($volume);
        $cards = Card::query()->with(['device', 'copies'])->where('production_id', $production->id)->orderBy('id')->get();
        [$seen] = $bench->look($production, collect([$found]), $cards);
        $known = $seen['state'] === 'reused' ? null : $cards->firstWhere('ulid', $seen['known_card']);

        return new JsonResponse($seen + ['list' => $bench->files($found, $known)]);
    }

    /** Where a card would land, by the production's template or one that is being tried. */
    public function place(Request $request, Production $production, ShootDay $day): JsonResponse
    {
        $input = $request->validate(['roll' => ['required', 'string', 'max:60'], 'device' => ['nullable', 'string', 'max:12'], 'template' => ['nullable', 'string', 'max:400']]);
        $tried = (clone $production)->forceFill(['card_template' => $input['template'] ?? $production->card_template]);
        $device = ($input['device'] ?? null) === null ? null : $production->devices()->where('letter', $input['device'])->first();
        $card = isset($input['template']) ? null : Card::query()->with('copies')->where('production_id', $production->id)->where('roll', $input['roll'])->first();
        $place = Stores::placeOf($tried, $day, $device, $input['roll'], $card);

        return new JsonResponse(['path' => $place['below'] === '' ? $place['name'] : $place['below'].'/'.$place['name']]);
    }

    /** Where cards land from now on; those that are there stay where they are. */
    public function template(Request $request, Production $production): JsonResponse
    {
        $input = $request->validate(['was' => ['required', 'string', 'max:400'], 'now' => ['required', 'string', 'max:400']]);
        $now = trim(trim($input['now']), '/');
        PathTemplate::parse($now);
        DB::transaction(static function () use ($production, $input, $now, $request): void {
            $locked = Production::query()->lockForUpdate()->findOrFail($production->id);
            $has = $locked->card_template ?? PathTemplate::DEFAULT;
            if ($has !== $input['was']) {
                throw Problem::editedMeanwhile('where cards land', [['field' => 'template', 'yours' => $now, 'theirs' => $has]]);
            }
            $locked->card_template = $now;
            $log = new ChangeLog();
            $log->save($locked);
            $log->finish($locked, self::who($request), 'Cards land in '.$now);
        });
        Live::tell($production->id, 'cards');

        return new JsonResponse(['template' => $now]);
    }

    public function offload(Request $request, Production $production, ShootDay $day, string $volume, OffloadCard $offload): JsonResponse
    {
        $input = $request->validate([
            'roll' => ['required', 'string', 'max:60', 'regex:/\A[\p{L}\p{N}][\p{L}\p{N} _.-]*\z/u'],
            'device' => ['nullable', 'string', 'max:12'],
            'compare' => ['nullable', 'boolean'],
        ], ['roll.*' => 'A roll is named with letters, digits, spaces, dots and dashes.']);
        $device = ($input['device'] ?? null) === null ? null : self::deviceOf($production, $input['device']);
        $task = $offload($production, self::who($request), $day, $volume, $input['roll'], $device, (bool) ($input['compare'] ?? false));

        return new JsonResponse(ProductionController::task($task), 202);
    }

    private static function deviceOf(Production $production, string $letter): Device
    {
        return $production->devices()->where('letter', $letter)->first() ?? throw Problem::refused('device.unknown', 'There is no such device in this production.', 'Choose one of the list.');
    }

    public function show(Production $production, Card $card): JsonResponse
    {
        $card->load(['device', 'copies', 'releasedBy', 'day']);

        return new JsonResponse($this->card($card, false, collect()) + [
            'list' => $card->cardFiles()->orderByRaw('fault IS NULL')->orderBy('path')->limit(1000)->get(['path', 'size_bytes', 'algorithm', 'hash', 'copies', 'fault'])->all(),
            'releases' => $card->releases()->with('user')->get()->map(static fn (CardRelease $release): array => [
                'at' => $release->created_at->toIso8601String(), 'by' => $release->user?->name, 'evidence' => $release->evidence,
            ])->all(),
        ]);
    }

    /** The whole card is another device's; so are its clips. */
    public function cardDevice(Request $request, Production $production, Card $card, AssignDevice $assign): JsonResponse
    {
        $input = $request->validate(['was' => ['nullable', 'string', 'max:12'], 'device' => ['required', 'string', 'max:12']]);
        $device = self::deviceOf($production, $input['device']);
        $changed = DB::transaction(static function () use ($production, $card, $input, $device, $assign, $request): int {
            $locked = Card::query()->with('device')->lockForUpdate()->findOrFail($card->id);
            if ($locked->device?->letter !== ($input['was'] ?? null)) {
                throw Problem::editedMeanwhile('the device of '.$locked->roll, [['field' => 'device', 'yours' => $device->letter, 'theirs' => $locked->device?->letter]]);
            }

            return $assign($production, self::who($request), $locked->clips()->get(), $device, $locked);
        });

        return new JsonResponse(['changed' => $changed]);
    }

    public function clock(Request $request, Production $production, Clip $clip, StateClock $state): JsonResponse
    {
        $input = $request->validate(['frame' => ['required', 'integer', 'min:0'], 'reads' => ['required', 'string', 'max:16'], 'for' => ['required', 'in:card,day,device']]);
        $correction = $state($clip, self::who($request), $input['frame'], $input['reads'], $input['for']);

        return new JsonResponse(['correction_ticks' => $correction]);
    }

    public function cardReport(Production $production, Card $card, string $kind, string $format, CardReport $report): Response
    {
        $card->load(['device', 'copies', 'releasedBy', 'day']);

        return $this->report($production, $card->day, $card, $kind, $format, $report);
    }

    public function dayReport(Production $production, ShootDay $day, string $kind, string $format, CardReport $report): Response
    {
        return $this->report($production, $day, null, $kind, $format, $report);
    }

    /**
     * @param  'camera'|'sound'  $kind
     * @param  'pdf'|'csv'  $format
     */
    private function report(Production $production, ShootDay $day, ?Card $card, string $kind, string $format, CardReport $report): Response
    {
        return self::document($format === 'pdf' ? $report->pdf($day, $card, $kind) : $report->csv($day, $card, $kind), CardReport::fileName($production, $day, $card, $kind, $format), $format);
    }

    public function verify(Request $request, Production $production, Card $card, CheckCard $check): JsonResponse
    {
        return new JsonResponse(ProductionController::task($check($card, self::who($request))), 202);
    }

    /** Which device recorded some clips. */
    public function device(Request $request, Production $production, AssignDevice $assign): JsonResponse
    {
        $input = $request->validate(['clips' => ['required', 'array', 'between:1,1000'], 'clips.*' => ['string', 'size:26'], 'device' => ['required', 'string', 'max:12']]);
        $device = self::deviceOf($production, $input['device']);
        $clips = $production->clips()->whereIn('ulid', $input['clips'])->get();
        if ($clips->count() !== count(array_unique($input['clips']))) {
            throw Problem::missing('One of those clips', 'Load the page again.');
        }

        return new JsonResponse(['changed' => $assign($production, self::who($request), $clips, $device)]);
    }

    public function release(Request $request, Production $production, Card $card, ReleaseCard $release): JsonResponse
    {
        return new JsonResponse($this->card($release($card, self::who($request))->load(['device', 'copies', 'releasedBy']), false, collect()));
    }

    /**
     * @param  Collection<string, Task>  $tasks
     * @return array<string, mixed>
     */
    private function card(Card $card, bool $onBench, $tasks): array
    {
        $stores = config('cartella.stores');
        $task = $tasks->get('offload.'.$card->id) ?? $tasks->get('verify.'.$card->id) ?? $tasks->get('catalogue.'.$card->id);

        return [
            'ulid' => $card->ulid, 'roll' => $card->roll, 'volume' => $card->volume, 'device' => $card->device?->letter, 'device_note' => $card->device?->note, 'kind' => $card->device?->kind, 'state' => $card->state,
            'files' => $card->files, 'verified_files' => $card->verified_files, 'size_bytes' => $card->size_bytes, 'faults' => $card->faults ?? [], 'is_safe' => $card->isSafe(), 'on_bench' => $onBench,
            'verified_at' => $card->verified_at?->toIso8601String(), 'released_at' => $card->released_at?->toIso8601String(), 'released_by' => $card->releasedBy?->name,
            'use_number' => $card->use_number, 'first_at' => $card->first_at, 'last_at' => $card->last_at, 'clock_ticks' => $card->clock_ticks,
            'clips' => $card->clips_count ?? $card->clips()->count(), 'running_ticks' => (int) ($card->clips_sum_duration_ticks ?? 0),
            'copies' => $card->copies->sortBy(static fn ($copy): int => (int) array_search($copy->store, array_keys($stores), true))->values()->map(static fn ($copy): array => ['store' => $stores[$copy->store]['name'] ?? $copy->store, 'path' => $copy->path, 'manifest' => $copy->manifest, 'is_whole' => $copy->isWhole(), 'checked_at' => $copy->checked_at?->toIso8601String(), 'differences' => $copy->differences])->all(),
            'task' => $task === null ? null : ProductionController::task($task),
        ];
    }
}
