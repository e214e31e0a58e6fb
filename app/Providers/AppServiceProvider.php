<?php

declare(strict_types=1);

namespace App\Providers;

use App\Domain\Bins\BinsUndo;
use App\Domain\Cards\CardsUndo;
use App\Domain\Cards\FailedCard;
use App\Domain\Cards\MediaMade;
use App\Domain\Lineup\CheckPoints;
use App\Domain\Lineup\LineupUndo;
use App\Domain\Log\LogUndo;
use App\Domain\Screening\ScreeningUndo;
use App\Domain\Tasks\TaskFailed;
use App\Domain\Undo\Undoables;
use App\Models\Production;
use App\Policies\ProductionPolicy;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\Facades\Vite;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        $this->app->singleton(Undoables::class, static function (): Undoables {
            $tables = new Undoables();
            LogUndo::register($tables);
            CardsUndo::register($tables);
            LineupUndo::register($tables);
            BinsUndo::register($tables);
            ScreeningUndo::register($tables);

            return $tables;
        });
    }

    public function boot(): void
    {
        // Paths without a host work behind any name and port that the desk is reached by.
        Vite::createAssetPathsUsing(static fn(string $path): string => '/' . $path);
        // Of the makers' own server, while './cartella dev' runs.
        Vite::useHotFile(config('cartella.var') . '/run/hot');
        Model::preventSilentlyDiscardingAttributes();
        Gate::policy(Production::class, ProductionPolicy::class);
        // By person: what costs a decoder or a report, small stretches to listen to, who is where, what guards the account.
        foreach (['heavy' => 60, 'pair' => 240, 'presence' => 120, 'account' => 30, 'health' => 120] as $name => $perMinute) {
            RateLimiter::for(
                $name,
                static fn(Request $request): Limit => Limit::perMinute($perMinute)->by(
                    $name . '.' . ($request->user()?->getAuthIdentifier() ?? $request->ip()),
                ),
            );
        }
        Event::listen(MediaMade::class, static fn(MediaMade $made) => app(CheckPoints::class)->find($made->clip));
        Event::listen(TaskFailed::class, FailedCard::class);
    }
}
