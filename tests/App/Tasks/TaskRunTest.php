<?php

declare(strict_types=1);

namespace Tests\App\Tasks;

use App\Domain\Tasks\TaskLost;
use App\Domain\Tasks\TaskRun;
use App\Models\Task;
use App\Support\Problem;
use Cartella\Core\Time\Exception\InvalidTime;
use Illuminate\Support\Facades\DB;
use Tests\App\TestCase;

final class TaskRunTest extends TestCase
{
    private function task(): Task
    {
        return Task::query()->create([
            'production_id' => $this->production->id,
            'kind' => 'lineup',
            'title' => 'Line up day 1',
            'subject' => ['day' => $this->day->id],
            'state' => 'waiting',
        ]);
    }

    public function test_progress_is_written_and_the_answer_is_kept(): void
    {
        $task = $this->task();
        TaskRun::of($task->id, static function (TaskRun $run): array {
            $run->expect(2, 2000);
            $run->at(1, 1000, 'A001C001.mov');
            self::assertSame([1, 1000, 'A001C001.mov'], [$run->task->refresh()->done, $run->task->done_bytes, $run->task->now]);
            $run->at(2, 2000, 'A001C002.mov');

            return ['message' => 'Done.'];
        });
        self::assertSame(['done', 2, 'Done.'], [$task->refresh()->state, $task->done, $task->result['message']]);
        self::assertTrue($task->isOver());
        $this->as()->getJson($this->at('tasks'))->assertJsonPath('tasks.0.message', 'Done.');
    }

    public function test_work_that_is_counted_in_things_says_how_fast_it_goes_and_pages_need_not_ask_for_more(): void
    {
        $task = $this->task();
        TaskRun::of($task->id, static function (TaskRun $run): array {
            $run->expect(2);
            $run->at(0);
            self::assertNull($run->task->refresh()->done_per_minute, 'nothing is done yet');
            $run->at(2);
            self::assertGreaterThan(0, $run->task->refresh()->done_per_minute);

            return ['message' => 'Done.'];
        });
        $told = DB::table('events')
            ->where('topic', 'tasks')
            ->orderBy('id')
            ->pluck('facts')
            ->map(static fn(string $facts): array => json_decode($facts, true));
        $last = $told->where('progress', true)->last();
        self::assertSame([2, 2], [$last['done'], $last['total']]);
        self::assertArrayNotHasKey('progress', $told->last(), 'its end is more than progress');
    }

    public function test_a_cancel_that_comes_while_it_runs_ends_it_at_the_next_step(): void
    {
        $task = $this->task();
        $this->as();
        $reached = false;
        TaskRun::of($task->id, function (TaskRun $run) use ($task, &$reached): array {
            $run->expect(10);
            $this->postJson($this->at("tasks/$task->ulid/cancel"))->assertOk()->assertJsonPath('cancelling', true);
            $run->at(1);
            $reached = true;

            return [];
        });
        self::assertFalse($reached);
        self::assertSame(['cancelled', 'Stopped. What was finished is kept.'], [$task->refresh()->state, $task->result['message']]);
    }

    public function test_a_run_that_lost_the_database_leaves_its_task_to_the_next_worker(): void
    {
        $task = $this->task();
        $losses = [
            'the lock is gone' => static function (TaskRun $run): array {
                $run->expect(10);
                DB::select('DO RELEASE_ALL_LOCKS()');
                $run->at(1);

                return [];
            },
            'the connection is gone' => static fn(): array => throw new \PDOException(
                'SQLSTATE[HY000]: General error: 2006 MySQL server has gone away',
            ),
            'the server is starting' => static fn(): array => throw new \PDOException('SQLSTATE[HY000] [2002] Connection refused'),
        ];
        foreach ($losses as $title => $work) {
            try {
                TaskRun::of($task->id, $work);
                self::fail("$title: it went on");
            } catch (TaskLost | \PDOException) {
                self::assertSame(['running', null], [$task->refresh()->state, $task->ended_at], $title);
            }
        }
        TaskRun::of($task->id, static fn(): array => ['message' => 'Done.']);
        self::assertSame('done', $task->refresh()->state);
    }

    public function test_a_refusal_of_the_application_is_told_with_its_next_step(): void
    {
        $task = $this->task();
        TaskRun::of($task->id, static fn(): array => throw Problem::missing('The card A001', 'Put it in the reader again.'));
        self::assertSame(
            ['failed', 'The card A001 is not here.', 'Put it in the reader again.'],
            [$task->refresh()->state, $task->result['message'], $task->result['fix']],
        );
    }

    public function test_copied_and_verified_bytes_are_told_by_volume(): void
    {
        $task = $this->task();
        TaskRun::of($task->id, static function (TaskRun $run): array {
            $run->expect(2, 2000);
            $run->at(2, 1000, 'A001C001.mov', 1500, ['one' => 1000, 'two' => 900]);

            return [];
        });
        $this->as()->getJson($this->at('tasks'))->assertJsonPath('tasks.0.copied_bytes', 1500)->assertJsonPath('tasks.0.by_store.two', 900);
    }

    public function test_a_fault_of_the_core_is_told_in_its_own_words_with_the_next_step(): void
    {
        $task = $this->task();
        TaskRun::of($task->id, static fn(): array => throw InvalidTime::rate('26'));
        self::assertSame('failed', $task->refresh()->state);
        self::assertStringContainsString('"26" is not a frame rate', $task->result['message']);
        self::assertNotSame('', $task->result['fix']);
    }

    public function test_any_other_fault_shows_nothing_of_its_inside_and_names_the_place_in_the_log(): void
    {
        $task = $this->task();
        TaskRun::of($task->id, static fn(): array => throw new \RuntimeException('password=hunter2'));
        self::assertSame('failed', $task->refresh()->state);
        self::assertStringNotContainsString('hunter2', (string) json_encode($task->result));
        self::assertStringContainsString($task->ulid, $task->result['fix']);
    }

    public function test_work_that_is_over_is_not_done_again(): void
    {
        $task = $this->task();
        $times = 0;
        for ($run = 0; $run < 2; $run++) {
            TaskRun::of($task->id, static function () use (&$times): array {
                $times++;

                return [];
            });
        }
        self::assertSame(1, $times);
    }

    public function test_a_second_worker_leaves_a_task_alone_that_another_holds(): void
    {
        $task = $this->task();
        // Another connection is another worker.
        config(['database.connections.other' => config('database.connections.mariadb')]);
        $name = 'cartella.' . substr(hash('xxh64', (string) config('database.connections.mariadb.database')), 0, 8) . '.task.' . $task->id;
        DB::connection('other')->select('SELECT GET_LOCK(?, 0)', [$name]);
        self::assertTrue(TaskRun::isHeld($task->id));
        TaskRun::of($task->id, static fn(): array => throw new \LogicException('It ran.'));
        self::assertSame('waiting', $task->refresh()->state);
        $id = DB::connection('other')->selectOne('SELECT CONNECTION_ID() AS id')->id;
        DB::statement("KILL $id");
        // The server lets go of a dead connection's lock in its own time; each question here takes a little.
        for ($asked = 0; $asked < 2000 && TaskRun::isHeld($task->id); $asked++);
        DB::purge('other');
        TaskRun::of($task->id, static fn(): array => []);
        self::assertSame('done', $task->refresh()->state, 'when that worker is gone, its lock is too');
    }
}
