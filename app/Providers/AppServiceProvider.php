<?php

declare(strict_types=1);

namespace App\Providers;

use App\Models\Production;
use App\Policies\ProductionPolicy;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\Facades\Vite;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    public function boot(): void
    {
        // Paths without a host work behind any name and port that the desk is reached by.
        Vite::createAssetPathsUsing(static fn (string $path): string => '/'.$path);
        Model::preventSilentlyDiscardingAttributes();
        Gate::policy(Production::class, ProductionPolicy::class);
        RateLimiter::for('sign-in', static fn (Request $request): Limit => Limit::perMinute(20)->by(mb_strtolower((string) $request->input('email')).'|'.$request->ip()));
    }
}
