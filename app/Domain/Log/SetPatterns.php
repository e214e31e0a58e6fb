<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Undo\ChangeLog;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Slate\NamePattern;
use Cartella\Core\Slate\SlateReader;
use Illuminate\Support\Facades\DB;

/** Sets the production's slate patterns, in their order, or its ready-made name patterns; undoable, and never over a colleague's. */
final class SetPatterns
{
    /**
     * @param  'slate_patterns'|'name_patterns'  $which
     * @param  list<string>  $was  what the person saw when they began
     * @param  list<string>  $now
     *
     * @throws Problem|\Cartella\Core\CartellaException on a conflict, or a pattern that cannot be used
     */
    public function __invoke(Production $production, User $user, string $which, array $was, array $now): void
    {
        $which === 'slate_patterns'
            ? SlateReader::of($now, $production->slate_style)
            : array_map(static fn(string $pattern): NamePattern => NamePattern::parse($pattern, $production->fields()), $now);
        DB::transaction(static function () use ($production, $user, $which, $was, $now): void {
            $production = Production::query()->lockForUpdate()->findOrFail($production->id);
            $there = $which === 'slate_patterns' ? $production->slatePatterns() : $production->namePatterns();
            if ($there !== $was && $there !== $now) {
                throw Problem::editedMeanwhile('the patterns', [['field' => $which, 'yours' => $now, 'theirs' => $there]]);
            }
            $log = new ChangeLog();
            $production->{$which} = $now;
            $log->save($production);
            $log->finish($production, $user, $which === 'slate_patterns' ? 'Change the slate patterns' : 'Change the name patterns');
        });
        Live::tell($production->id, Topic::Patterns);
    }
}
