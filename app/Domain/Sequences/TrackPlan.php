<?php

declare(strict_types=1);

namespace App\Domain\Sequences;

use App\Domain\Undo\ChangeLog;
use App\Domain\Words\ScriptOf;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Topic;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Illuminate\Support\Facades\DB;

/** The tracks that a new cut of a production has: what each is called and what it is for. */
final class TrackPlan
{
    /** What a track can be for, and how that is called. */
    public const ROLES = [
        'picture' => 'picture',
        'stand-in' => 'stand-ins',
        'titles' => 'titles',
        'dialogue' => 'dialogue',
        'voice' => 'voice-over',
        'effects' => 'effects',
        'ambience' => 'ambience and room tone',
        'music' => 'music',
    ];

    public const MOST = 40;

    /** Characters that get a track of their own where nobody has said otherwise. */
    private const CHARACTERS = 4;

    /** @return list<array{kind: 'picture'|'sound', name: string, role: string}> */
    public static function of(Production $production): array
    {
        return $production->track_plan ?? self::usual($production);
    }

    /** @return list<Track> empty ones */
    public static function tracks(Production $production): array
    {
        return array_map(
            static fn(array $one): Track => new Track(TrackKind::from($one['kind']), $one['name'], [], $one['role']),
            self::of($production),
        );
    }

    /** @param  list<array{kind: 'picture'|'sound', name: string, role: string}>  $plan  none leaves it to the desk again */
    public static function set(Production $production, User $user, array $plan): void
    {
        DB::transaction(static function () use ($production, $user, $plan): void {
            $log = new ChangeLog();
            $production->track_plan = $plan === [] ? null : $plan;
            $log->save($production);
            $log->finish($production, $user, 'Change the tracks of new cuts');
        });
        Live::tell($production->id, Topic::Settings);
    }

    /** @return list<array{kind: 'picture'|'sound', name: string, role: string}> a track for each of those who speak most in the script */
    private static function usual(Production $production): array
    {
        $lines = [];
        foreach (ScriptOf::lines($production) as $line) {
            $name = mb_convert_case($line->character, MB_CASE_TITLE);
            $lines[$name] = ($lines[$name] ?? 0) + 1;
        }
        arsort($lines);
        $plan = [
            ['picture', 'Picture', 'picture'],
            ['picture', 'Stand-ins', 'stand-in'],
            ['picture', 'Titles', 'titles'],
            ['sound', 'Dialogue', 'dialogue'],
            ...array_map(
                static fn(int|string $name): array => ['sound', (string) $name, 'dialogue'],
                array_slice(array_keys($lines), 0, self::CHARACTERS),
            ),
            ['sound', 'Voice-over', 'voice'],
            ['sound', 'Effects', 'effects'],
            ['sound', 'Ambience', 'ambience'],
            ['sound', 'Music', 'music'],
        ];

        return array_map(static fn(array $one): array => ['kind' => $one[0], 'name' => $one[1], 'role' => $one[2]], $plan);
    }
}
