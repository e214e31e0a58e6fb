<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use Cartella\Core\Log\LogLine;
use Illuminate\Support\Facades\DB;

/** Logs one typed line for the row under the cursor: the take it names is found or made, and gets what it says. */
final class LogTyped
{
    public function __construct(private readonly FindTake $find)
    {
    }

    /**
     * What a line means for a row, before anything is written.
     *
     * @param  Take|null  $last  logged just before, from which a clip without a slate goes on
     */
    public function understand(ShootDay $day, string $text, Take|Clip|null $row, ?Take $last = null): LogLine
    {
        return LogLine::parse($text, $day->production->slate_style, ($row instanceof Take ? $row : $last)?->slate());
    }

    /**
     * @return array{take: Take, made: bool}
     *
     * @throws Problem where the line says no slate, or one that cannot be
     */
    public function __invoke(ShootDay $day, User $user, string $text, Take|Clip|null $row, ?Take $last = null): array
    {
        $line = $this->understand($day, $text, $row, $last);
        if ($line->problems !== [] || $line->slate === null || (! $line->namesSlate && ! $row instanceof Take)) {
            throw Problem::refused('line.slate', $line->problems[0] ?? 'The line names no slate.', 'Begin with setup and take, such as 3A/4.');
        }
        $answer = DB::transaction(function () use ($day, $user, $line, $row): array {
            $log = new ChangeLog();
            $take = $line->namesSlate || ! $row instanceof Take
                ? ($this->find)($day, $line->slate, $log)
                : Take::query()->whereKey($row->id)->lockForUpdate()->firstOrFail();
            $made = $take->wasRecentlyCreated;
            EditTake::fill($take, $line->fields);
            $log->save($take);
            if ($row instanceof Clip) {
                SetSlate::join(collect([$row]), $take, $log);
            }
            $log->finish($day->production, $user, 'Log '.$take->label());

            return ['take' => $take, 'made' => $made];
        });
        Live::tell($day->production_id, 'takes', ['take' => $answer['take']->ulid]);

        return $answer;
    }
}
