<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Bins\EditBins;
use App\Domain\Cards\OffloadCard;
use App\Domain\Footage\SetSlate;
use App\Domain\Lineup\Scope;
use App\Domain\Lineup\StartLineup;
use App\Domain\Log\BringScript;
use App\Domain\Log\EditTake;
use App\Domain\Log\ReadSlates;
use App\Domain\Screening\BuildReel;
use App\Domain\Screening\EditNotes;
use App\Domain\Screening\ReelFrom;
use App\Domain\Screening\ReelRecipe;
use App\Models\Clip;
use App\Models\Device;
use App\Models\Production;
use App\Models\Role;
use App\Models\Scene;
use App\Models\ShootDay;
use App\Models\Store;
use App\Models\Take;
use App\Models\Task;
use App\Models\User;
use App\Support\Folders;
use App\Support\Listening;
use App\Support\OwnFolder;
use App\Support\Problem;
use Cartella\Core\Time\Ticks;
use Cartella\Demo\Scenario;
use Cartella\Standins\CardBench;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;

/**
 * Builds Low Water as an assistant leaves it at wrap of day 1, through the same actions and workers that people use:
 * offloaded, logged, lined up, a reel, some open points; day 2's cards wait on the bench.
 */
final class BuildDemo extends Command
{
    /** The exit status that says: not here, and nothing was touched. */
    public const REFUSED = 3;

    protected $signature = 'cartella:demo {--again : build it again from nothing}';

    protected $description = 'Build the demo production Low Water';

    private const DAY_1 = ['A001', 'A002', 'B001', 'B002', 'S001', 'IMPORTS'];

    private const DAY_2 = ['A003', 'B003', 'C001', 'S002'];

    private const DAY_3 = ['A004', 'B004', 'S003'];

    public function handle(
        OffloadCard $offload,
        ReadSlates $read,
        StartLineup $start,
        SetSlate $slate,
        EditTake $edit,
        BuildReel $reel,
        EditBins $bins,
        EditNotes $note,
        BringScript $script,
    ): int {
        $mark = Folders::var('demo-built');
        $begun = Folders::var('demo-begun');
        if (is_file($mark) && !$this->option('again')) {
            return self::SUCCESS;
        }
        try {
            $this->refuse($mark, $begun);
            $this->ownFolders();
        } catch (Problem $refusal) {
            $this->warn('The demo was left alone: ' . $refusal->getMessage() . ' ' . $refusal->fix);

            return self::REFUSED;
        }
        touch($begun);
        $this->info('Building day 1 of Low Water through the real workers.');
        $this->clear();
        [$production, $people, $days] = $this->people();
        $assistant = $people['rosa'];
        $bench = new CardBench(Folders::cardLibrary(), Folders::readers());
        foreach (self::DAY_1 as $card) {
            $bench->insert($card);
            $device = $production->devices->firstWhere('letter', $card === 'IMPORTS' ? '' : $card[0]);
            $offload($production, $assistant, $days[1], $card, $card, $device);
        }
        $this->await($production, 'offloading and cataloguing');
        foreach (self::DAY_1 as $card) {
            $bench->eject($card);
        }
        $read($days[1], $assistant);
        $this->logByEye($days[1], $assistant, $slate);
        $start($days[1], $assistant, Scope::day(), ['sound', 'timecode']);
        $this->await($production, 'lining up');
        $this->log($days[1], $assistant, $edit);
        $script(
            $production,
            $assistant,
            (string) file_get_contents(dirname(Folders::cardLibrary()) . '/notes/low-water.fountain'),
            'low-water.fountain',
        );
        $standin = config('cartella.words_standin');
        if (is_string($standin)) {
            $production->update(['words_service' => ['url' => $standin, 'token' => null]]);
        }
        $this->screen($days[1], $people, $reel, $note);
        $bin = $bins->make($production, $assistant, 'Wheel and sluice details', null);
        $bins->move(
            $production,
            $assistant,
            Clip::query()
                ->where('shoot_day_id', $days[1]->id)
                ->whereIn('name', ['A001C006', 'A001C007', 'sluice gate creak'])
                ->pluck('ulid')
                ->map(static fn(string $ulid): string => "clip:$ulid")
                ->values()
                ->all(),
            $bin,
            null,
        );
        $this->dayThree($production, $assistant, $days[3], $bench, $offload, $read, $start, $edit);
        foreach (self::DAY_2 as $card) {
            $bench->insert($card);
        }
        touch($mark);
        @unlink($begun);

        return self::SUCCESS;
    }

    /** One recorder file over six takes: it is lined up, and cut into six parts. */
    private function dayThree(
        Production $production,
        User $assistant,
        ShootDay $day,
        CardBench $bench,
        OffloadCard $offload,
        ReadSlates $read,
        StartLineup $start,
        EditTake $edit,
    ): void {
        foreach (self::DAY_3 as $card) {
            $bench->insert($card);
            $offload($production, $assistant, $day, $card, $card, $production->devices->firstWhere('letter', $card[0]));
        }
        $this->await($production, 'offloading and cataloguing day 3');
        array_map($bench->eject(...), self::DAY_3);
        $read($day, $assistant);
        $start($day, $assistant, Scope::day(), ['sound', 'timecode']);
        $this->await($production, 'lining up day 3');
        $this->log($day, $assistant, $edit);
    }

    /** @throws Problem if the desk holds somebody's work, or others than this machine can reach log-ins whose passwords are published */
    private function refuse(string $mark, string $begun): void
    {
        if (!Listening::isLocal()) {
            throw Problem::refused(
                'demo.open',
                'this desk can be reached from other machines, and the passwords of the demo are published.',
                'Start it on 127.0.0.1, or with --empty.',
            );
        }
        // Building begins with nothing, so it must never meet somebody's own work. A demo that was killed half-way is not.
        $own = Production::query()->where('name', '!=', 'Low Water')->pluck('name');
        $strangers = User::query()->where('is_demo', false)->exists();
        if (
            $own->isNotEmpty() ||
            (!is_file($mark) && !is_file($begun) && User::query()->exists()) ||
            ($strangers && !is_file($mark) && !is_file($begun))
        ) {
            throw Problem::refused(
                'demo.own',
                sprintf('this desk holds work of its own%s.', $own->isEmpty() ? '' : ' (' . $own->implode(', ') . ')'),
                'Use another folder for the demo.',
            );
        }
    }

    /**
     * The demo empties the readers, the volumes for copies, the proxies and the inbox, so it works in folders of its own
     * only: below the desk's own folder, and made by itself.
     *
     * @return list<string>
     *
     * @throws Problem if one of them is a real volume, or holds what the demo did not put there
     */
    private function ownFolders(): array
    {
        $folders = [Folders::readers(), Folders::media(), Folders::inbox(), ...array_column((array) config('cartella.stores'), 'path')];
        $var = rtrim((string) realpath(Folders::var()), '/') . '/';
        foreach ($folders as $folder) {
            $above = $folder;
            while (!file_exists($above) && dirname($above) !== $above) {
                $above = dirname($above);
            }
            if (is_link($folder) || !str_starts_with(realpath($above) . '/', $var) || in_array('..', explode('/', $folder), true)) {
                throw Problem::refused(
                    'demo.volume',
                    "$folder is not below " . rtrim($var, '/') . ', so it may be a real volume.',
                    'Take it out of .env for the demo, or start with --empty.',
                );
            }
            if (!OwnFolder::isOurs($folder) && array_diff(@scandir($folder) ?: [], ['.', '..', Store::MARKER]) !== []) {
                throw OwnFolder::notOurs($folder);
            }
        }

        return $folders;
    }

    private function clear(): void
    {
        @unlink(Folders::var('demo-built'));
        $bench = new CardBench(Folders::cardLibrary(), Folders::readers());
        array_map($bench->eject(...), $bench->inserted());
        Artisan::call('migrate:fresh', ['--force' => true]);
        foreach ($this->ownFolders() as $folder) {
            // A volume that nothing was copied to yet holds its marker, and nothing else.
            OwnFolder::isOurs($folder) || @unlink($folder . '/' . Store::MARKER);
            OwnFolder::make($folder);
            OwnFolder::clear($folder);
        }
    }

    /** @return array{Production, array<string, User>, array<int, ShootDay>} */
    private function people(): array
    {
        $production = Production::query()->create(['name' => 'Low Water', 'rate_num' => 25, 'rate_den' => 1]);
        $people = [];
        foreach (
            [
                ['rosa', 'Rosa Okafor', Role::Assistant],
                ['ines', 'Ines Halloran', Role::Editor],
                ['tom', 'Tom Brandt', Role::Reviewer],
                ['adaeze', 'Adaeze Lind', Role::Admin],
            ]
            as [$key, $name, $role]
        ) {
            $people[$key] = User::query()->create([
                'name' => $name,
                'email' => "$key@lowwater.test",
                'password' => 'tide-mill',
                'role' => $role,
                'is_demo' => true,
            ]);
            $production->users()->attach($people[$key]);
        }
        foreach (
            [['A', 'camera', 'wide'], ['B', 'camera', 'close'], ['C', 'camera', 'hall'], ['S', 'recorder', 'sound']]
            as $lane => [$letter, $kind, $note]
        ) {
            Device::query()->create([
                'production_id' => $production->id,
                'letter' => $letter,
                'kind' => $kind,
                'note' => $note,
                'lane' => $lane,
            ]);
        }
        foreach (Scenario::SCENES as $name => $scene) {
            Scene::query()->create(['production_id' => $production->id, 'name' => (string) $name, 'heading' => $scene['heading']]);
        }
        $days = [];
        foreach ([1 => '2026-10-05', 2 => '2026-10-06', 3 => '2026-10-07'] as $number => $date) {
            $days[$number] = ShootDay::query()->create(['production_id' => $production->id, 'number' => $number, 'date' => $date]);
        }

        return [$production, $people, $days];
    }

    /** The insert was shot without sound, so nobody but the slate in the picture says what it is. */
    private function logByEye(ShootDay $day, User $assistant, SetSlate $slate): void
    {
        foreach (['A001C006' => '3B/1', 'A001C007' => '3B/2'] as $name => $text) {
            $slate($day, $assistant, Clip::query()->where('shoot_day_id', $day->id)->where('name', $name)->get(), $text);
        }
    }

    private function log(ShootDay $day, User $assistant, EditTake $edit): void
    {
        foreach (Take::query()->where('shoot_day_id', $day->id)->get() as $take) {
            $setup = Scenario::SETUPS[$take->setup];
            $changes = [
                'description' => ['was' => $take->description, 'now' => $setup['text']],
                'size' => ['was' => $take->size, 'now' => $setup['size']],
            ];
            if ($take->setup === '3B') {
                $changes['is_mos'] = ['was' => false, 'now' => true];
                $changes['status'] = ['was' => $take->status, 'now' => $take->take === 2 ? 'circled' : $take->status];
            }
            if ($take->label() === '7/2') {
                $changes['is_tail_slate'] = ['was' => false, 'now' => true];
            }
            $edit($take, $assistant, $changes);
        }
    }

    /** @param  array<string, User>  $people */
    private function screen(ShootDay $day, array $people, BuildReel $reel, EditNotes $note): void
    {
        $built = $reel($day, $people['rosa'], 'Day 1, circled', new ReelRecipe(ReelFrom::Days, [$day->ulid], true));
        $notes = [
            ['12A', 2, 'tom', 9, 'Use the breath before the line.'],
            ['12', 2, 'tom', 14, 'Hold on Mara after the question.'],
            ['3', 2, 'ines', 7, 'Best of the three so far.'],
            ['12A', 2, 'ines', 4, 'Gull on the boom, lav is clean.'],
        ];
        foreach ($notes as [$setup, $number, $who, $second, $text]) {
            $take = Take::query()->where('shoot_day_id', $day->id)->where('setup', $setup)->where('take', $number)->firstOrFail();
            $clip = $take->clips()->where('kind', 'picture')->orderBy('device_id')->first();
            $note->add($take, $people[$who], $clip, $second * Ticks::PER_SECOND, null, $text, $built);
        }
        foreach ([['12A', 2, 'tom', 4], ['12A', 2, 'ines', 5], ['3', 2, 'ines', 4]] as [$setup, $number, $who, $stars]) {
            $take = Take::query()->where('shoot_day_id', $day->id)->where('setup', $setup)->where('take', $number)->firstOrFail();
            $note->rate($take, $people[$who], $stars);
        }
    }

    private function await(Production $production, string $what): void
    {
        $bar = $this->output->isDecorated();
        $end = microtime(true) + 900;
        while (microtime(true) < $end) {
            $open = Task::query()->where('production_id', $production->id)->whereNull('ended_at')->count();
            if ($open === 0 && DB::table('jobs')->count() === 0) {
                $failed = Task::query()->where('production_id', $production->id)->where('state', 'failed')->first();
                if ($failed !== null) {
                    throw new \RuntimeException($failed->title . ': ' . ($failed->result['message'] ?? 'failed'));
                }
                $this->line("  $what: done" . ($bar ? str_repeat(' ', 20) : ''));

                return;
            }
            if ($bar) {
                $this->output->write("  $what: $open still running  \r");
            }
            usleep(200_000);
        }
        throw new \RuntimeException("$what took longer than 15 minutes. Do the workers run? See ./cartella status.");
    }
}
