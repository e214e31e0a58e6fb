<?php

declare(strict_types=1);

namespace App\Http\Words;

use App\Domain\Bins\BinRows;
use App\Domain\Words\BringWords;
use App\Domain\Words\ClipWords;
use App\Domain\Words\EditWords;
use App\Domain\Words\FindWords;
use App\Domain\Words\Languages;
use App\Domain\Words\WordsHistory;
use App\Domain\Words\WordsOut;
use App\Domain\Words\WordsService;
use App\Domain\Words\WordStretch;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Shell\Answers\ChangedAnswer;
use App\Http\Shell\Answers\DoneAnswer;
use App\Http\Shell\Answers\MadeAnswer;
use App\Http\Words\Answers\ClipWordsAnswer;
use App\Http\Words\Answers\PausesAnswer;
use App\Http\Words\Answers\StretchAnswer;
use App\Http\Words\Answers\WordsHistoryAnswer;
use App\Http\Words\Answers\WordSourceAnswer;
use App\Http\Words\Answers\WordsStartedAnswer;
use App\Http\Words\Requests\AroundRequest;
use App\Http\Words\Requests\BringWordsRequest;
use App\Http\Words\Requests\CorrectRequest;
use App\Http\Words\Requests\FindWordsRequest;
use App\Http\Words\Requests\PausesRequest;
use App\Http\Words\Requests\SpeakerRequest;
use App\Http\Words\Requests\SplitPassageRequest;
use App\Http\Words\Requests\WordsServiceRequest;
use App\Models\Clip;
use App\Models\Passage;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\Task;
use Cartella\Core\Exchange\ListProblem;
use Cartella\Core\Time\Ticks;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\HeaderUtils;

/** What is said in clips: found, brought, corrected, chosen, written out. */
final class WordsController extends Controller
{
    public function show(Production $production, Clip $clip): JsonResponse
    {
        $heardIn = ClipWords::heardIn($clip);

        return new JsonResponse(
            new ClipWordsAnswer(
                array_map(WordSourceAnswer::of(...), ClipWords::sources($clip)),
                array_map(static fn(Clip $one): string => $one->ulid, array_values(array_filter($heardIn, FindWords::isHeard(...)))),
                array_keys(Languages::all()),
                $production->words_service['url'] ?? null,
                Task::query()
                    ->whereIn('kind', ['words', 'align'])
                    ->where('production_id', $production->id)
                    ->whereIn('state', ['waiting', 'running'])
                    ->get()
                    ->first(
                        static fn(Task $task): bool => array_intersect(array_column($heardIn, 'id'), $task->subject['clips']) !== [],
                    )?->ulid,
            ),
        );
    }

    public function history(Production $production, Clip $clip): JsonResponse
    {
        return new JsonResponse(Answers::make(WordsHistoryAnswer::class, ['steps' => WordsHistory::of($clip)]));
    }

    public function find(FindWordsRequest $request, Production $production, ShootDay $day, FindWords $find): JsonResponse
    {
        $input = $request->validated();
        $user = self::who($request);
        $task = isset($input['clips'])
            ? $find->clips(
                $production,
                $user,
                $input['clips'],
                $input['language'],
                $request->boolean('again'),
                $request->boolean('service'),
            )
            : $find->day($day->setRelation('production', $production), $user, $input['language'], $request->boolean('service'));

        return new JsonResponse(new WordsStartedAnswer($task->ulid, 0, []), 202);
    }

    public function bring(BringWordsRequest $request, Production $production, Clip $clip, BringWords $bring): JsonResponse
    {
        ['task' => $task, 'words' => $words, 'problems' => $problems] = $bring(
            $clip,
            self::who($request),
            $request->bytes(),
            $request->validated('language'),
            $request->boolean('again'),
        );

        return new JsonResponse(
            new WordsStartedAnswer(
                $task?->ulid,
                $words,
                array_map(static fn(ListProblem $one): string => ucfirst($one->where()) . ': ' . $one->reason, $problems),
            ),
            $task === null ? 201 : 202,
        );
    }

    public function file(Production $production, Clip $clip, string $cues): Response
    {
        return self::answered(WordsOut::file($cues, ClipWords::words($clip), $clip), $clip->title(), $cues);
    }

    public function takeFile(Production $production, Take $take, string $cues): Response
    {
        ['clip' => $clip, 'words' => $words, 'from' => $from] = WordsOut::ofTake($take);

        return self::answered(
            WordsOut::file($cues, $words, $clip->exists ? $clip : null, $from),
            str_replace('/', ' take ', $take->label()),
            $cues,
        );
    }

    /** What lies in a bin, one after the other. */
    public function binFile(Production $production, string $key, string $cues, BinRows $rows): Response
    {
        $ids = $rows->clipIds($production, $key);
        $clips = Clip::query()
            ->with(['placement', 'day', 'production', 'device'])
            ->whereKey($ids)
            ->get()
            ->sortBy(static fn(Clip $clip): int => (int) array_search($clip->id, $ids, true));

        return self::answered(WordsOut::ofClips($clips, $cues), 'Words of a bin', $cues);
    }

    public function correct(CorrectRequest $request, Production $production, Clip $clip, Passage $passage, EditWords $edit): JsonResponse
    {
        $edit->correct(
            $passage,
            self::who($request),
            $request->integer('from'),
            $request->validated('was'),
            (string) $request->validated('text'),
        );

        return new JsonResponse(new DoneAnswer());
    }

    public function split(SplitPassageRequest $request, Production $production, Clip $clip, Passage $passage, EditWords $edit): JsonResponse
    {
        return new JsonResponse(
            new MadeAnswer($edit->split($passage, self::who($request), $request->integer('at'), $request->validated('was'))->ulid),
            201,
        );
    }

    public function merge(Request $request, Production $production, Clip $clip, Passage $passage, EditWords $edit): JsonResponse
    {
        $edit->merge($passage, self::who($request));

        return new JsonResponse(new DoneAnswer());
    }

    public function speaker(SpeakerRequest $request, Production $production, Clip $clip, Passage $passage, EditWords $edit): JsonResponse
    {
        $name = trim((string) $request->validated('speaker'));

        return new JsonResponse(
            new ChangedAnswer(
                $edit->speaker(
                    $passage,
                    self::who($request),
                    $request->validated('was'),
                    $name === '' ? null : $name,
                    $request->boolean('everywhere'),
                ),
            ),
        );
    }

    public function around(AroundRequest $request, Production $production, Clip $clip): JsonResponse
    {
        $input = $request->validated();
        $sound = self::sound($clip, $input['sound']);
        [$in, $out] = WordStretch::around($clip, $sound, [
            'start' => (int) $input['start'],
            'end' => (int) $input['end'],
            'before' => isset($input['before']) ? (int) $input['before'] : null,
            'after' => isset($input['after']) ? (int) $input['after'] : null,
        ]);

        return new JsonResponse(new StretchAnswer($in, $out));
    }

    public function pauses(PausesRequest $request, Production $production, Clip $clip): JsonResponse
    {
        $input = $request->validated();
        $sound = isset($input['sound']) ? self::sound($clip, $input['sound']) : $clip;
        $pauses = WordStretch::pauses(
            $sound,
            isset($input['below']) ? (float) $input['below'] : null,
            Ticks::ofSeconds((float) ($input['longer'] ?? 1.5)),
            Ticks::ofSeconds((float) ($input['padding'] ?? 0)),
        );
        $offset = WordStretch::offset($clip, $sound);
        $length = (int) $clip->duration_ticks;
        $inside = static function (array $spans) use ($offset, $length): array {
            $kept = [];
            foreach ($spans as [$from, $to]) {
                [$from, $to] = [max(0, $from + $offset), min($length, $to + $offset)];
                if ($to > $from) {
                    $kept[] = new StretchAnswer($from, $to);
                }
            }

            return $kept;
        };

        return new JsonResponse(new PausesAnswer($inside($pauses->pauses), $inside($pauses->speech), round($pauses->floorDb, 1)));
    }

    public function setService(WordsServiceRequest $request, Production $production): JsonResponse
    {
        $url = $request->validated('url');
        $token = $request->validated('token');
        WordsService::set(
            $production,
            self::who($request),
            $url === null ? null : ['url' => $url, 'token' => $token === '' ? null : $token],
        );

        return new JsonResponse(new DoneAnswer());
    }

    /** The clip itself, or a recording under it; nothing else is heard in it. */
    private static function sound(Clip $clip, string $ulid): Clip
    {
        return collect([$clip, ...ClipWords::heardIn($clip)])->firstWhere('ulid', $ulid) ??
            throw (new ModelNotFoundException())->setModel(Clip::class, [$ulid]);
    }

    private static function answered(string $text, string $name, string $format): Response
    {
        return new Response($text, 200, [
            'Content-Type' => ['txt' => 'text/plain', 'srt' => 'application/x-subrip', 'vtt' => 'text/vtt'][$format] . '; charset=utf-8',
            'Content-Disposition' => HeaderUtils::makeDisposition(
                'attachment',
                str_replace(['/', '\\'], '_', "$name.$format"),
                (string) preg_replace('/[^\x20-\x7e]|[%\/\\\\]/', '_', "$name.$format"),
            ),
        ]);
    }
}
