<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Footage\FindTake;
use App\Domain\Footage\SetSlate;
use App\Domain\Footage\TakeFacts;
use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Fields\TakeFields;
use Cartella\Core\Log\LogLine;
use Cartella\Core\Slate\FieldMerge;
use Illuminate\Support\Facades\DB;

/** Logs one typed line for the row under the cursor: the take it names is found or made, and gets what it says. */
final class LogTyped
{
    public function __construct(private readonly FindTake $find) {}

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
     * Words, size and marks take the place of what stood there; notes and keywords add to it.
     *
     * @param  array<string, mixed>|null  $seen  what the person saw: the take's fields,
     *     and `slate` of a clip's row; null asks for no comparison
     * @return array{take: Take, made: bool}
     *
     * @throws Problem where the line says no slate, or one that cannot be, or somebody changed the same meanwhile
     */
    public function __invoke(ShootDay $day, User $user, string $text, Take|Clip|null $row, ?Take $last = null, ?array $seen = null): array
    {
        $line = $this->understand($day, $text, $row, $last);
        if ($line->problems !== [] || $line->slate === null || (!$line->namesSlate && !($row instanceof Take))) {
            throw Problem::refused(
                'line.slate',
                $line->problems[0] ?? 'The line names no slate.',
                'Begin with setup and take, such as 3A/4.',
            );
        }
        $answer = DB::transaction(function () use ($day, $user, $line, $row, $seen): array {
            $log = new ChangeLog();
            $take = $line->namesSlate || !($row instanceof Take) ? ($this->find)($day, $line->slate, $log) : $row;
            $made = $take->wasRecentlyCreated;
            if (!$made) {
                $take = Take::query()->lockForUpdate()->findOrFail($take->id);
            }
            if ($made && !($row instanceof Clip)) {
                // There is such a take because a person says so, before any card of it is in.
                TakeFacts::mark($take, ['slate'], 'person');
            }
            EditTake::fill($take, $made ? $line->fields : self::onto($take, $line->fields, $seen));
            $log->save($take);
            if ($row instanceof Clip) {
                SetSlate::refuseOther($row, $seen === null ? null : ['slate' => $seen['slate'] ?? null]);
                SetSlate::join(collect([$row]), $take, $log, of: $seen['slate'] ?? null);
            }
            $log->finish($day->production, $user, 'Log ' . $take->label());

            return ['take' => $take, 'made' => $made];
        });
        Live::tell($day->production_id, Topic::Takes, ['take' => $answer['take']->ulid]);

        return $answer;
    }

    /**
     * @param  array<string, string|bool>  $fields
     * @param  array<string, mixed>|null  $seen
     * @return array<string, string|bool>
     */
    private static function onto(Take $take, array $fields, ?array $seen): array
    {
        $conflicts = [];
        foreach ($fields as $field => $now) {
            if (TakeFields::glue($field) !== null) {
                $fields[$field] = FieldMerge::decide($field, (string) $take->{$field}, null, $now, 'person') ?? (string) $take->{$field};
            } elseif ($seen !== null && array_key_exists($field, $seen) && $seen[$field] !== $take->{$field} && $take->{$field} !== $now) {
                $conflicts[] = [
                    'take' => $take->ulid,
                    'label' => $take->label(),
                    'field' => $field,
                    'yours' => $now,
                    'theirs' => $take->{$field},
                ];
            }
        }

        return $conflicts === [] ? $fields : throw Problem::editedMeanwhile($take->label(), $conflicts);
    }
}
