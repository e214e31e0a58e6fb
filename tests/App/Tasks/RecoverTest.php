<?php

declare(strict_types=1);

namespace Tests\App\Tasks;

use App\Domain\Tasks\NoRoom;
use App\Domain\Tasks\Room;
use App\Domain\Tasks\StartTask;
use App\Domain\Tasks\TaskLock;
use App\Domain\Tasks\TaskPaused;
use App\Domain\Tasks\TaskRun;
use App\Models\Card;
use App\Models\Task;
use App\Support\Problem;
use Cartella\Core\Process;
use Database\Factories\StoredSequenceFactory;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

/** Workers that die, jobs that are lost, disks that are full: on the real queue in the database. */
final class RecoverTest extends TestCase
{
    use MakesMedia;

    protected function setUp(): void
    {
        parent::setUp();
        config(['queue.default' => 'database']);
    }

    private function start(?string $alone = null): Task
    {
        return app(StartTask::class)($this->production, null, 'verify', 'Verify A001', ['card' => 0], $alone);
    }

    /** The state that a worker leaves behind that was killed in the middle. */
    private function killed(Task $task, int $tries): void
    {
        $task->update(['state' => 'running', 'tries' => $tries]);
        DB::table('jobs')
            ->where('id', $task->refresh()->job)
            ->update(['reserved_at' => now()->subMinute()->getTimestamp(), 'attempts' => $tries]);
    }

    public function test_a_worker_that_dies_is_followed_twice_and_then_the_task_has_failed_with_its_last_words(): void
    {
        $task = $this->start('copies.1');
        foreach ([1, 2] as $tries) {
            $this->killed($task, $tries);
            $this->artisan('cartella:recover')->assertOk();
            self::assertSame(
                [null, 1],
                [$task->refresh()->ended_at, DB::table('jobs')->count()],
                "after $tries deaths it is sent again, once",
            );
        }
        $this->killed($task, 3);
        file_put_contents(storage_path("logs/task-$task->ulid.last"), 'Allowed memory size of 536870912 bytes exhausted');
        $this->artisan('cartella:recover')->assertOk();
        unlink(storage_path("logs/task-$task->ulid.last"));
        self::assertSame(['failed', null], [$task->refresh()->state, $task->alone]);
        self::assertStringContainsString('3 times', $task->result['message']);
        self::assertStringContainsString('Allowed memory size', $task->result['message']);
        $this->as()
            ->postJson($this->at("tasks/$task->ulid/again"))
            ->assertStatus(202)
            ->assertJsonPath('state', 'waiting')
            ->assertJsonPath('tries', 0);
    }

    public function test_a_clock_that_is_set_back_an_hour_makes_nothing_wait(): void
    {
        [$killed, $waiting, $lost] = [$this->start('copies.1'), $this->start('copies.2'), $this->start('copies.3')];
        $this->killed($killed, 1);
        DB::table('jobs')
            ->where('id', $killed->job)
            ->update(['reserved_at' => now()->getTimestamp()]);
        DB::table('jobs')->where('id', $lost->refresh()->job)->delete();
        $later = now()->addHours(12)->getTimestamp();
        $hook = DB::table('jobs')->insertGetId([
            ...['queue' => 'default', 'payload' => '{}', 'attempts' => 3],
            ...['available_at' => $later, 'created_at' => now()->getTimestamp()],
        ]);
        $this->travel(-1)->hours();
        $this->artisan('cartella:recover')->assertOk();
        foreach ([$killed, $waiting, $lost] as $task) {
            $job = DB::table('jobs')
                ->where('id', $task->refresh()->job)
                ->first(['reserved_at', 'available_at']);
            self::assertNotNull($job);
            self::assertNull($job->reserved_at);
            self::assertLessThanOrEqual(now()->getTimestamp(), $job->available_at);
        }
        self::assertSame($later, (int) DB::table('jobs')->where('id', $hook)->value('available_at'), 'what is for later stays so');
    }

    public function test_a_worker_that_dies_farther_on_each_time_is_followed_again(): void
    {
        $task = $this->start();
        foreach ([100, 200, 300, 400, 500] as $done) {
            $task->update(['total' => 1000, 'done' => $done]);
            $this->killed($task, 3);
            $this->artisan('cartella:recover')->assertOk();
            self::assertNull($task->refresh()->ended_at);
            $task->update(['tried_at_mark' => $done]);
        }
        $this->killed($task, 3);
        $this->artisan('cartella:recover')->assertOk();
        self::assertSame('failed', $task->refresh()->state, 'three tries that ended at the same place');
    }

    public function test_a_desk_that_was_stopped_on_purpose_costs_no_try(): void
    {
        $task = $this->start();
        $this->killed($task, 3);
        $this->artisan('cartella:recover --all --clean')->assertOk();
        self::assertSame([2, null], [$task->refresh()->tries, $task->ended_at]);
    }

    public function test_no_second_job_is_sent_while_one_is_queued(): void
    {
        $task = $this->start();
        $task->update(['updated_at' => now()->subMinute()]);
        for ($pass = 0; $pass < 3; $pass++) {
            $this->artisan('cartella:recover')->assertOk();
        }
        self::assertSame(1, DB::table('jobs')->count());
    }

    public function test_a_waiting_task_that_lost_its_job_is_found(): void
    {
        $task = $this->start();
        DB::table('jobs')->delete();
        DB::table('tasks')->update(['updated_at' => now()->subMinute()]);
        $this->artisan('cartella:recover')->assertOk();
        self::assertSame($task->refresh()->job, (string) DB::table('jobs')->value('id'));
    }

    public function test_a_task_and_its_job_come_together_or_not_at_all(): void
    {
        try {
            DB::transaction(function (): void {
                $this->start();
                throw new \RuntimeException('the card could not be written');
            });
        } catch (\RuntimeException) {
        }
        self::assertSame([0, 0], [Task::query()->count(), DB::table('jobs')->count()]);
    }

    public function test_two_tasks_on_one_thing_cannot_start_whoever_asks_first(): void
    {
        $first = $this->start('copies.7');
        try {
            $this->start('copies.7');
            self::fail('Both started.');
        } catch (Problem $refusal) {
            self::assertSame(['task.busy', $first->ulid], [$refusal->problemCode, $refusal->context['task']]);
        }
        $first->update(['alone' => null, 'ended_at' => now(), 'state' => 'done']);
        self::assertNotSame($first->id, $this->start('copies.7')->id);
    }

    public function test_a_run_waits_while_another_works_on_the_same(): void
    {
        config(['database.connections.other' => config('database.connections.mariadb')]);
        $task = $this->start();
        $name = 'cartella.' . substr(hash('xxh64', (string) config('database.connections.mariadb.database')), 0, 8) . '.catalogue.3';
        DB::connection('other')->select('SELECT GET_LOCK(?, 0)', [$name]);
        TaskRun::of($task->id, static fn(): array => throw new \LogicException('It ran.'), 'catalogue.3');
        self::assertSame(['waiting', 0], [$task->refresh()->state, $task->tries]);
        DB::connection('other')->select('SELECT RELEASE_LOCK(?)', [$name]);
        DB::purge('other');
        TaskRun::of($task->id, static fn(): array => ['message' => 'Done.'], 'catalogue.3');
        self::assertSame('done', $task->refresh()->state);
        self::assertTrue(TaskLock::isFree('catalogue.3'));
    }

    public function test_what_waits_for_room_and_what_is_paused_costs_no_try(): void
    {
        $task = $this->start();
        foreach ([new NoRoom('Waits for room: the volume of one needs 5 GB, 1.0 GB is free.'), new TaskPaused()] as $why) {
            TaskRun::of($task->id, static fn(): array => throw $why);
            self::assertSame(['waiting', 0, null], [$task->refresh()->state, $task->tries, $task->ended_at]);
        }
        TaskRun::of($task->id, static fn(): array => throw new NoRoom('Waits for room: 5 GB.'));
        $this->as()
            ->getJson($this->at('tasks'))
            ->assertJsonPath('tasks.0.state', 'waiting')
            ->assertJsonPath('tasks.0.now', 'Waits for room: 5 GB.');
        $this->postJson($this->at("tasks/$task->ulid/cancel"))->assertOk()->assertJsonPath('state', 'cancelled');
    }

    public function test_an_offload_that_a_small_volume_has_no_room_for_waits_and_goes_on_when_there_is_some(): void
    {
        $small = $this->folder . '/small';
        mkdir($small);
        if (Process::run(['mount', '-t', 'tmpfs', '-o', 'size=24m', 'tmpfs', $small])['status'] !== 0) {
            self::markTestSkipped('A small disk can only be made by root.');
        }
        try {
            config(['queue.default' => 'sync']);
            $this->storeAt('two', $small);
            file_put_contents($small . '/in the way', random_bytes(8 << 20));
            $this->plain('A001/big.bin', random_bytes(4 << 20));
            $this->as()
                ->postJson($this->onDay('volumes/A001/offload'), ['roll' => 'A001', 'device' => 'A'])
                ->assertStatus(202);
            $task = Task::query()->where('kind', 'offload')->sole();
            self::assertSame('waiting', $task->state);
            self::assertStringContainsString('Waits for room: the volume of small needs 4.2 MB', $task->now);
            self::assertFileDoesNotExist("$this->folder/one/{$this->production->name}", 'nothing is begun');
            unlink($small . '/in the way');
            DB::table('tasks')->update(['updated_at' => now()->subMinute()]);
            $this->artisan('cartella:recover')->assertOk();
            self::assertTrue(Card::query()->sole()->isSafe());
        } finally {
            Process::run(['umount', $small]);
        }
    }

    public function test_below_the_databases_floor_work_waits_and_people_still_sign_in_stop_work_and_remove_reels(): void
    {
        config(['queue.default' => 'sync', 'cartella.floor_bytes' => 1 << 60]);
        $this->plain('A001/a.txt', 'x');
        $user = $this->person();
        $this->actingAs($user)
            ->postJson($this->onDay('volumes/A001/offload'), ['roll' => 'A001', 'device' => 'A'])
            ->assertStatus(202);
        $task = Task::query()->where('kind', 'offload')->sole();
        self::assertStringContainsString('kept for the desk itself', $task->now);
        $this->postJson($this->at("tasks/$task->ulid/cancel"))->assertOk();
        $reel = StoredSequenceFactory::new()->createOne([
            'production_id' => $this->production->id,
            'shoot_day_id' => $this->day->id,
            'user_id' => $user->id,
        ]);
        $this->deleteJson($this->at("reels/$reel->ulid"))->assertOk();
        self::assertSame(0, $this->production->reels()->count());
        $this->deleteJson('/api/session')->assertOk();
        $this->postJson('/api/session', ['email' => $user->email, 'password' => 'secret'])->assertOk();
    }

    public function test_the_floor_is_watched_while_work_goes_on(): void
    {
        $task = $this->start();
        TaskRun::of($task->id, static function (TaskRun $run): array {
            $run->expect(10);
            config(['cartella.floor_bytes' => 1 << 60]);
            $run->at(1);

            return ['message' => 'It went on.'];
        });
        self::assertSame('waiting', $task->refresh()->state);
        config(['cartella.floor_bytes' => 0]);
        app(Room::class)->keepFloor();
    }
}
