<?php

declare(strict_types=1);

namespace App\Domain\Cards;

use App\Domain\Footage\Stores;
use App\Domain\Undo\ChangeLog;
use App\Models\Production;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Custody\PathTemplate;
use Illuminate\Support\Facades\DB;

/** Where cards land from now on; those that are there stay where they are. */
final class SetCardTemplate
{
    public function __construct(private readonly Stores $stores) {}

    /** @throws Problem if two cards or productions would land in one folder, or somebody changed it meanwhile */
    public function __invoke(Production $production, User $user, string $was, string $now): string
    {
        $now = trim(trim($now), '/');
        PathTemplate::parse($now);
        $this->stores->refuseSharedTemplate($production, $now);
        DB::transaction(static function () use ($production, $was, $now, $user): void {
            $locked = Production::query()->lockForUpdate()->findOrFail($production->id);
            $has = $locked->card_template ?? PathTemplate::DEFAULT;
            if ($has !== $was) {
                throw Problem::editedMeanwhile('where cards land', [['field' => 'template', 'yours' => $now, 'theirs' => $has]]);
            }
            $locked->card_template = $now;
            $log = new ChangeLog();
            $log->save($locked);
            $log->finish($locked, $user, 'Cards land in ' . $now);
        });
        Live::tell($production->id, Topic::Cards);

        return $now;
    }
}
