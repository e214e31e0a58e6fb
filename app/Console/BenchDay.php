<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Footage\MediaFolder;
use App\Models\Clip;
use App\Models\Production;
use App\Models\Role;
use App\Models\ShootDay;
use App\Models\User;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Process;

/** What the benches with media of their own begin with: a scratch production with one person and one day, and pictures made by ffmpeg. */
final class BenchDay
{
    private function __construct(public readonly Production $production, public readonly ShootDay $day, public readonly User $user) {}

    /** @return self|null null in a database that holds a production */
    public static function begin(): ?self
    {
        if (Production::query()->exists()) {
            return null;
        }
        $production = Production::query()
            ->create(['name' => 'Bench', 'rate_num' => 25, 'rate_den' => 1])
            ->refresh();
        $user = User::query()->create([
            'name' => 'Bench Person',
            'email' => 'bench@lowwater.test',
            'password' => 'tide-mill',
            'role' => Role::Assistant,
        ]);
        $production->users()->attach($user);
        $day = ShootDay::query()->create(['production_id' => $production->id, 'number' => 1, 'date' => now()->toDateString()]);

        return new self($production, $day, $user);
    }

    /** Gives a clip the media of another one, under an address of its own. */
    public static function share(Clip $from, Clip $to): void
    {
        $folder = MediaFolder::of($to)->work();
        foreach (glob(MediaFolder::of($from)->folder() . '/*') ?: [] as $file) {
            link($file, $folder . '/' . basename($file));
        }
    }

    /** Columns across a picture, of which number k is white where bit k of the frame's number is set; the brightness as `geq` says it. */
    public static function columns(int $bits): string
    {
        return sprintf('255*mod(floor(N/pow(2\\,floor(X*%d/W)))\\,2)', $bits);
    }

    /** @param  list<string>  $arguments */
    public static function ffmpeg(array $arguments): void
    {
        $run = Process::run([...Ffmpeg::command(), ...$arguments], null, 3600);
        if ($run['status'] !== 0) {
            throw new \RuntimeException($run['error']);
        }
    }
}
