<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Domain\Undo\ChangeLog;
use App\Models\Clip;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** Gives clips a colour, or takes it off them, in one step that can be taken back. */
final class ColourClips
{
    /** What a colour may be; what each looks like stands in `ui/stages/bins/colours.css`. */
    public const COLOURS = ['rust', 'ochre', 'moss', 'teal', 'slate', 'plum'];

    /**
     * @param  list<string>  $clips  ULIDs
     * @param  string|null  $colour  one of {@see self::COLOURS}; null takes it off
     * @return int clips that changed
     *
     * @throws Problem if a clip is none of the production
     */
    public function __invoke(Production $production, User $user, array $clips, ?string $colour): int
    {
        $changed = DB::transaction(static function () use ($production, $user, $clips, $colour): int {
            $found = Clip::query()->where('production_id', $production->id)->whereIn('ulid', $clips)->lockForUpdate()->get();
            if ($found->count() !== count(array_unique($clips))) {
                throw Problem::missing('One of those clips', 'Load the page again.');
            }
            foreach ($found as $clip) {
                $clip->colour = $colour;
            }
            $changed = $found->filter(static fn(Clip $clip): bool => $clip->isDirty('colour'))->count();
            $log = new ChangeLog();
            $log->saveAll($found->all());
            $what = $changed === 1 ? 'a clip' : "$changed clips";
            $log->finish($production, $user, $colour === null ? "No colour for $what" : "Colour $what $colour");

            return $changed;
        });
        Live::tell($production->id, Topic::Clips);

        return $changed;
    }
}
