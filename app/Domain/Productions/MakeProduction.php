<?php

declare(strict_types=1);

namespace App\Domain\Productions;

use App\Models\Device;
use App\Models\Production;
use App\Models\ShootDay;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Slate\SlateStyle;
use Cartella\Core\Time\FrameRate;
use Illuminate\Support\Facades\DB;

/** Opens a production with its first shoot day, two cameras and a recorder. */
final class MakeProduction
{
    /** @throws Problem if the name is taken */
    public function __invoke(User $user, string $name, FrameRate $rate, string $date, SlateStyle $style = SlateStyle::Letter): Production
    {
        if (Production::query()->where('name', $name)->exists()) {
            throw Problem::refused('production.taken', "There is a production named $name already.", 'Choose another name.');
        }

        return DB::transaction(static function () use ($user, $name, $rate, $date, $style): Production {
            $production = Production::query()->create([
                'name' => $name,
                'rate_num' => $rate->num,
                'rate_den' => $rate->den,
                'drop_frame' => $rate->dropFrame,
                'slate_style' => $style,
            ]);
            $production->users()->attach($user);
            ShootDay::query()->create(['production_id' => $production->id, 'number' => 1, 'date' => $date]);
            foreach ([['A', 'camera'], ['B', 'camera'], ['C', 'camera'], ['S', 'recorder']] as $lane => [$letter, $kind]) {
                Device::query()->create([
                    'production_id' => $production->id,
                    'letter' => $letter,
                    'kind' => $kind,
                    'lane' => $lane,
                    'note' => $kind === 'recorder' ? 'sound' : '',
                ]);
            }

            return $production;
        });
    }
}
