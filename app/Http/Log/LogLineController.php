<?php

declare(strict_types=1);

namespace App\Http\Log;

use App\Domain\Log\LogTyped;
use App\Http\Answers;
use App\Http\Controller;
use App\Http\Log\Answers\TypedAnswer;
use App\Http\Log\Answers\UnderstoodAnswer;
use App\Http\Log\Requests\TypedRequest;
use App\Models\Clip;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\Take;
use App\Support\Problem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The log line: what it would do, and doing it. */
final class LogLineController extends Controller
{
    /** What the log line would do, while it is typed. */
    public function line(Request $request, Production $production, ShootDay $day, LogTyped $log): JsonResponse
    {
        $text = (string) $request->query('text', '');
        $row = self::row($day, (string) $request->query('row', ''));
        $last = self::row($day, (string) $request->query('last', ''));
        $line = $log->understand($day, $text, $row, $last instanceof Take ? $last : null);
        $there =
            $line->slate === null
                ? null
                : Take::query()
                    ->where('shoot_day_id', $day->id)
                    ->where('setup', $line->slate->setup)
                    ->where('take', $line->slate->take)
                    ->where('part', $line->slate->part)
                    ->first();

        return new JsonResponse(
            Answers::make(UnderstoodAnswer::class, [
                'pieces' => $line->pieces,
                'problems' => $line->problems,
                'hints' => $line->hints,
                'slate' => $line->slate?->label(),
                'does' => match (true) {
                    $line->slate === null || ($row === null && !$line->namesSlate) || ($row instanceof Clip && !$line->namesSlate)
                        => 'nothing',
                    $row instanceof Clip => $there === null ? 'joins-new' : 'joins',
                    default => $there === null ? 'makes' : 'edits',
                },
            ]),
        );
    }

    public function type(TypedRequest $request, Production $production, ShootDay $day, LogTyped $log): JsonResponse
    {
        $input = $request->validated();
        $last = self::row($day, $input['last'] ?? '');
        $answer = $log(
            $day,
            self::who($request),
            $input['text'],
            self::row($day, $input['row'] ?? ''),
            $last instanceof Take ? $last : null,
            $request->input('seen'),
        );

        return new JsonResponse(new TypedAnswer($answer['take']->ulid, $answer['take']->label(), $answer['made']));
    }

    private static function row(ShootDay $day, string $ulid): Take|Clip|null
    {
        if ($ulid === '') {
            return null;
        }

        return Take::query()->where('shoot_day_id', $day->id)->where('ulid', $ulid)->first() ??
            (Clip::query()->where('shoot_day_id', $day->id)->where('ulid', $ulid)->first() ??
                throw Problem::missing('That row', 'Load the page again.'));
    }
}
