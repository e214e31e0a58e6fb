<?php

declare(strict_types=1);

namespace App\Providers;

use App\Domain\Bins\BinsUndo;
use App\Domain\Cards\CardPoints;
use App\Domain\Cards\CardReport;
use App\Domain\Cards\CardsTasks;
use App\Domain\Cards\CardsUndo;
use App\Domain\Cards\FailedCard;
use App\Domain\Footage\FootageTasks;
use App\Domain\Footage\FootageUndo;
use App\Domain\Footage\MediaMade;
use App\Domain\Handoff\HandoffPoints;
use App\Domain\Handoff\HandoffTasks;
use App\Domain\Lineup\CheckPoints;
use App\Domain\Lineup\LineupPoints;
use App\Domain\Lineup\LineupTasks;
use App\Domain\Lineup\LineupUndo;
use App\Domain\Log\DailyLog;
use App\Domain\Log\LogPoints;
use App\Domain\Log\LogTasks;
use App\Domain\Log\LogUndo;
use App\Domain\Log\ScriptPoints;
use App\Domain\Points\OpenPoints;
use App\Domain\Productions\ProductionsUndo;
use App\Domain\Reports\Reports;
use App\Domain\Reports\ReportsTasks;
use App\Domain\Screening\BuildReel;
use App\Domain\Screening\ScreeningReport;
use App\Domain\Screening\ScreeningTasks;
use App\Domain\Screening\ScreeningUndo;
use App\Domain\Sequences\Recipes;
use App\Domain\Sequences\SequencesUndo;
use App\Domain\Tasks\DatabaseLocks;
use App\Domain\Tasks\Locks;
use App\Domain\Tasks\TaskFailed;
use App\Domain\Tasks\TaskKinds;
use App\Domain\Undo\Undoables;
use App\Domain\Words\WordPoints;
use App\Domain\Words\WordsTasks;
use App\Domain\Words\WordsUndo;
use App\Models\Card;
use App\Models\Production;
use App\Models\SequenceKind;
use App\Models\ShootDay;
use App\Models\StoredSequence;
use App\Policies\ProductionPolicy;
use App\Support\DatabaseBus;
use App\Support\Folders;
use App\Support\KeptSessions;
use App\Support\LiveBus;
use App\Support\RedisBus;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Contracts\Foundation\Application;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\Facades\Session;
use Illuminate\Support\Facades\Vite;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        // What another machine's desk would keep elsewhere; local by default.
        $this->app->bind(Locks::class, DatabaseLocks::class);
        $this->app->bind(LiveBus::class, config('cartella.live') === 'redis' ? RedisBus::class : DatabaseBus::class);
        // What a general thing must know of a particular one is said by the particular one.
        $this->app->singleton(Recipes::class, static function (): Recipes {
            $recipes = new Recipes();
            $recipes->register(SequenceKind::Reel, static fn(StoredSequence $reel): ?string => app(BuildReel::class)->again($reel));

            return $recipes;
        });
        $this->app->singleton(Undoables::class, static function (): Undoables {
            $tables = new Undoables();
            ProductionsUndo::register($tables);
            FootageUndo::register($tables);
            LogUndo::register($tables);
            CardsUndo::register($tables);
            LineupUndo::register($tables);
            WordsUndo::register($tables);
            BinsUndo::register($tables);
            SequencesUndo::register($tables);
            ScreeningUndo::register($tables);

            return $tables;
        });
        $this->app->singleton(TaskKinds::class, static function (): TaskKinds {
            $kinds = new TaskKinds();
            CardsTasks::register($kinds);
            FootageTasks::register($kinds);
            LogTasks::register($kinds);
            LineupTasks::register($kinds);
            WordsTasks::register($kinds);
            HandoffTasks::register($kinds);
            ReportsTasks::register($kinds);
            ScreeningTasks::register($kinds);

            return $kinds;
        });
        $this->app->singleton(Reports::class, static function (Application $app): Reports {
            $reports = new Reports();
            foreach (['camera', 'sound'] as $what) {
                $reports->register(
                    $what,
                    static fn(): string => ucfirst($what) . ' report',
                    static fn(ShootDay $day, ?Card $card): string => $app->make(CardReport::class)->pdf($day, $card, $what),
                );
            }
            $reports->register(
                'daily',
                static fn(ShootDay $day): string => "Daily log of day $day->number",
                static fn(ShootDay $day): string => $app->make(DailyLog::class)->pdf($day),
            );

            $reports->register(
                'screening',
                static fn(ShootDay $day, ?string $reel): string => $app->make(ScreeningReport::class)->title((string) $reel),
                static fn(ShootDay $day, ?Card $card, ?string $reel): string => $app->make(ScreeningReport::class)->pdf((string) $reel),
            );

            return $reports;
        });
        $this->app
            ->when(OpenPoints::class)
            ->needs('$sources')
            ->give(
                static fn(Application $app): array => [
                    $app->make(LogPoints::class),
                    $app->make(CardPoints::class),
                    $app->make(LineupPoints::class),
                    $app->make(ScriptPoints::class),
                    $app->make(WordPoints::class),
                    $app->make(HandoffPoints::class),
                ],
            );
    }

    public function boot(): void
    {
        // Paths without a host work behind any name and port that the desk is reached by.
        Vite::createAssetPathsUsing(static fn(string $path): string => '/' . $path);
        // Of the makers' own server, while './cartella dev' runs.
        Vite::useHotFile(Folders::var('run/hot'));
        Model::preventSilentlyDiscardingAttributes();
        Gate::policy(Production::class, ProductionPolicy::class);
        // By person: what costs a decoder or a report, small stretches to listen to, who is where, what guards the
        // account, pieces of files that come in.
        $limits = [
            'heavy' => 60,
            'read' => 120,
            'pair' => 240,
            'presence' => 120,
            'account' => 30,
            'health' => 120,
            'pieces' => 6000,
            'room' => 1200,
            'watch' => 6000,
        ];
        foreach ($limits as $name => $perMinute) {
            RateLimiter::for(
                $name,
                static fn(Request $request): Limit => Limit::perMinute($perMinute)->by(
                    $name . '.' . ($request->user()?->getAuthIdentifier() ?? $request->ip()),
                ),
            );
        }
        Session::extend(
            'database',
            static fn(Application $app): KeptSessions => new KeptSessions(
                $app->make('db')->connection(config('session.connection')),
                config('session.table'),
                config('session.lifetime'),
                $app,
            ),
        );
        Event::listen(MediaMade::class, static fn(MediaMade $made) => app(CheckPoints::class)->find($made->clip));
        Event::listen(TaskFailed::class, FailedCard::class);
    }
}
