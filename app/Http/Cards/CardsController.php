<?php

declare(strict_types=1);

namespace App\Http\Cards;

use App\Domain\Cards\AssignDevice;
use App\Domain\Cards\Bench;
use App\Domain\Cards\CheckCard;
use App\Domain\Cards\OffloadCard;
use App\Domain\Cards\ReleaseCard;
use App\Domain\Cards\Stores;
use App\Http\Controller;
use App\Http\Shell\ProductionController;
use App\Models\Card;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Task;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The bench: volumes in the readers, cards of the day, their offloads and their release. */
final class CardsController extends Controller
{
    public function index(Production $production, ShootDay $day, Bench $bench, Stores $stores): JsonResponse
    {
        $cards = Card::query()->with(['device', 'copies', 'releasedBy', 'day'])->withSum(['clips' => static fn ($query) => $query->whereIn('kind', ['picture', 'sound'])], 'duration_ticks')->withCount('clips')
            ->where('production_id', $production->id)->orderBy('id')->get();
        $tasks = Task::query()->where('production_id', $production->id)->whereIn('kind', ['offload', 'catalogue', 'verify'])->whereNull('ended_at')->get()->keyBy(static fn (Task $task): string => $task->kind.'.'.$task->subject['card']);
        $names = $bench->names();
        $known = $cards->keyBy('volume');
        $volumes = [];
        foreach ($names as $name) {
            $card = $known->get($name);
            try {
                $seen = $bench->look($production, $name);
            } catch (Problem) {
                continue; // taken out while it was looked at
            }
            if ($card === null || ($card->state === 'verified' && ($seen['files'] !== $card->files || $seen['size_bytes'] !== $card->size_bytes))) {
                $volumes[] = $seen + ['known_roll' => $card?->roll] + $this->dated($production, $bench, $seen);
            }
        }

        return new JsonResponse([
            'volumes' => $volumes,
            'cards' => $cards->filter(static fn (Card $card): bool => $card->shoot_day_id === $day->id)->map(fn (Card $card): array => $this->card($card, in_array($card->volume, $names, true), $tasks))->values()->all(),
            'stores' => array_map(static fn (string $key, array $store): array => ['key' => $key, 'name' => $store['name'], 'free_bytes' => $stores->freeBytes($key)], array_keys($stores->all()), $stores->all()),
        ]);
    }

    public function volume(Production $production, ShootDay $day, string $volume, Bench $bench): JsonResponse
    {
        $seen = $bench->look($production, $volume);
        $device = $seen['device'] === null ? null : $production->devices()->where('letter', $seen['device'])->first();

        return new JsonResponse($seen + $this->dated($production, $bench, $seen) + [
            'list' => $bench->files($volume),
            'known_roll' => null,
            'lands_in' => Stores::below($production, $day, $device).'/'.$seen['roll'],
        ]);
    }

    public function offload(Request $request, Production $production, ShootDay $day, string $volume, OffloadCard $offload): JsonResponse
    {
        $input = $request->validate([
            'roll' => ['required', 'string', 'max:60', 'regex:/\A[\p{L}\p{N}][\p{L}\p{N} _.-]*\z/u'],
            'device' => ['nullable', 'string', 'max:12'],
        ], ['roll.*' => 'A roll is named with letters, digits, spaces, dots and dashes.']);
        $device = null;
        if (($input['device'] ?? null) !== null) {
            $device = $production->devices()->where('letter', $input['device'])->first() ?? throw Problem::refused('device.unknown', 'There is no such device in this production.', 'Choose one of the list.');
        }
        $task = $offload($production, self::who($request), $day, $volume, $input['roll'], $device);

        return new JsonResponse(ProductionController::task($task), 202);
    }

    public function show(Production $production, Card $card): JsonResponse
    {
        $card->load(['device', 'copies', 'releasedBy', 'day']);

        return new JsonResponse($this->card($card, false, collect()) + [
            'list' => $card->cardFiles()->orderBy('path')->limit(1000)->get(['path', 'size_bytes', 'algorithm', 'hash', 'copies', 'fault'])->all(),
        ]);
    }

    public function verify(Request $request, Production $production, Card $card, CheckCard $check): JsonResponse
    {
        return new JsonResponse(ProductionController::task($check($card, self::who($request))), 202);
    }

    /** Which device recorded some clips. */
    public function device(Request $request, Production $production, AssignDevice $assign): JsonResponse
    {
        $input = $request->validate(['clips' => ['required', 'array', 'between:1,1000'], 'clips.*' => ['string', 'size:26'], 'device' => ['required', 'string', 'max:12']]);
        $device = $production->devices()->where('letter', $input['device'])->first() ?? throw Problem::refused('device.unknown', 'There is no such device in this production.', 'Choose one of the list.');
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
     * The date on the volume's clips, and the number of the shoot day that has it.
     *
     * @param  array{name: string, files: int, size_bytes: int}  $seen
     * @return array{date: string|null, day: int|null}
     */
    private function dated(Production $production, Bench $bench, array $seen): array
    {
        $date = $bench->date($seen['name'], $seen['files'], $seen['size_bytes']);

        return ['date' => $date, 'day' => $date === null ? null : $production->days()->whereDate('date', $date)->value('number')];
    }

    /**
     * @param  \Illuminate\Support\Collection<string, Task>  $tasks
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
            'clips' => $card->clips_count ?? $card->clips()->count(), 'running_ticks' => (int) ($card->clips_sum_duration_ticks ?? 0),
            'copies' => $card->copies->map(static fn ($copy): array => ['store' => $stores[$copy->store]['name'] ?? $copy->store, 'path' => $copy->path, 'manifest' => $copy->manifest, 'is_whole' => $copy->isWhole(), 'checked_at' => $copy->checked_at?->toIso8601String(), 'differences' => $copy->differences])->all(),
            'task' => $task === null ? null : ProductionController::task($task),
        ];
    }
}
