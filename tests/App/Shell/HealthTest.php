<?php

declare(strict_types=1);

namespace Tests\App\Shell;

use App\Domain\Cards\Imports;
use App\Domain\Health\Prune;
use App\Models\ScriptNoteFile;
use App\Models\Task;
use App\Models\Upload;
use App\Support\Live;
use App\Support\Topic;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Tests\App\TestCase;

final class HealthTest extends TestCase
{
    public function test_whoever_watches_the_machine_hears_whether_all_is_up_and_only_the_machine_itself_hears_what(): void
    {
        Cache::put('schedule.beat', now()->getTimestamp(), 60);
        Cache::put('bench.watch', now()->getTimestamp(), 60);
        $this->getJson('/health')
            ->assertOk()
            ->assertJsonPath('ok', true)
            ->assertJsonPath('queues.0.name', 'copy')
            ->assertJsonStructure(['disks' => [['what', 'free_bytes', 'total_bytes']]]);
        $this->withServerVariables(['REMOTE_ADDR' => '10.1.1.1'])
            ->getJson('/health')
            ->assertExactJson(['ok' => true]);
    }

    public function test_a_full_disk_and_a_job_that_nobody_does_are_told(): void
    {
        Cache::put('schedule.beat', now()->getTimestamp(), 60);
        Cache::put('bench.watch', now()->getTimestamp(), 60);
        config(['cartella.floor_bytes' => 1 << 60]);
        DB::table('jobs')->insert([
            'queue' => 'copy',
            'payload' => '{}',
            'attempts' => 0,
            'available_at' => now()->subHour()->getTimestamp(),
            'created_at' => now()->subHour()->getTimestamp(),
        ]);
        $problems = $this->getJson('/health')->assertStatus(503)->json('problems');
        self::assertCount(2, $problems);
        self::assertStringContainsString('work that fills disks waits', $problems[0]);
        self::assertStringContainsString('A job of copy has waited for 60 minutes', $problems[1]);
    }

    public function test_what_ended_long_ago_is_removed_and_work_and_the_audit_stay(): void
    {
        $old = ['production_id' => $this->production->id, 'kind' => 'verify', 'title' => 'x', 'subject' => [], 'state' => 'done'];
        Task::query()->create($old + ['ended_at' => now()->subDays(31)]);
        Task::query()->create($old + ['ended_at' => now()->subDay()]);
        Task::query()->create(['state' => 'waiting'] + $old);
        Live::tell($this->production->id, Topic::Takes);
        DB::table('events')->update(['created_at' => now()->subDays(2)]);
        Live::tell($this->production->id, Topic::Takes);
        DB::table('audit')->insert(['what' => 'signed_in', 'who' => 'x', 'facts' => '{}', 'created_at' => now()->subYears(3)]);
        mkdir($this->folder . '/notes');
        foreach (['old' => 61, 'new' => 5] as $name => $days) {
            file_put_contents("$this->folder/notes/$name", 'x');
            ScriptNoteFile::query()->create([
                'production_id' => $this->production->id,
                'shoot_day_id' => $this->day->id,
                'name' => $name,
                'path' => "notes/$name",
                'layout' => [],
                'applied_at' => now()->subDays($days),
            ]);
        }
        foreach (['forgotten' => 31, 'fresh' => 2] as $name => $days) {
            $upload = Upload::query()->create(
                $this->ours() + ['user_id' => $this->person()->id, 'fingerprint' => $name, 'files' => 1, 'size_bytes' => 1],
            );
            Upload::query()
                ->whereKey($upload->id)
                ->update(['updated_at' => now()->subDays($days)]);
            mkdir(Imports::folder($upload), 0777, true);
            touch(Imports::folder($upload), time() - $days * 86_400);
        }
        config(['cartella.logs' => $this->folder]);
        file_put_contents($this->folder . '/php.log', str_repeat('x', 11 << 20));
        $removed = app(Prune::class)();
        self::assertSame([1, 1, 1, 1], [$removed['events'], $removed['tasks'], $removed['note_files'], $removed['logs']]);
        self::assertSame(
            [2, 1, ['new']],
            [
                Task::query()->count(),
                DB::table('audit')->count(),
                array_values(array_diff(scandir("$this->folder/notes") ?: [], ['.', '..'])),
            ],
        );
        self::assertSame(['fresh'], Upload::query()->pluck('fingerprint')->all());
        self::assertCount(1, glob($this->folder . '/uploads/*') ?: []);
        clearstatcache();
        self::assertSame([0, 11 << 20], [filesize($this->folder . '/php.log'), filesize($this->folder . '/php.log.1')]);
    }
}
