<?php

declare(strict_types=1);

namespace Tests\App\Shell;

use App\Domain\Tasks\TaskRun;
use App\Models\Task;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Illuminate\Support\Facades\Queue;
use Tests\App\TestCase;

/** Two that write at once: the database undoes what one of them began. */
final class DoneAgainTest extends TestCase
{
    /** The next so many writes to a table meet a deadlock. */
    private function collide(string $table, int $times): void
    {
        DB::connection()->beforeExecuting(static function (string $sql) use ($table, &$times): void {
            if (preg_match("/\A(insert into|update) `$table`/", $sql) === 1 && $times-- > 0) {
                $cause = new \PDOException('SQLSTATE[40001]: Serialization failure: 1213 Deadlock found when trying to get lock');
                $cause->errorInfo = ['40001', 1213, 'Deadlock found'];
                throw new QueryException('mariadb', $sql, [], $cause);
            }
        });
    }

    public function test_a_change_is_done_again_from_its_beginning_and_once(): void
    {
        Log::spy();
        $this->as();
        $bin = $this->postJson($this->at('bins'), ['name' => 'Gulls'])
            ->assertCreated()
            ->json('key');
        $this->collide('bins', 2);
        $this->patchJson($this->at("bins/$bin"), ['name' => 'Rain'])->assertSuccessful();
        self::assertSame(['Rain'], DB::table('bins')->where('production_id', $this->production->id)->pluck('name')->all());
        Log::shouldNotHaveReceived('error');
    }

    public function test_where_it_collides_each_time_it_is_told_and_nothing_is_done(): void
    {
        Log::spy();
        $this->as();
        $this->collide('bins', 100);
        $this->postJson($this->at('bins'), ['name' => 'Gulls'])->assertStatus(500);
        self::assertSame(0, DB::table('bins')->where('name', 'Gulls')->count());
        Log::shouldHaveReceived('error')->once();
    }

    public function test_a_task_goes_on_and_it_costs_no_try(): void
    {
        Queue::fake();
        $task = Task::query()->create([
            'production_id' => $this->production->id,
            'kind' => 'lineup',
            'title' => 'Line up day 1',
            'state' => 'waiting',
            'subject' => ['day' => $this->day->id],
        ]);
        $this->collide('takes', 1);
        TaskRun::of($task->id, static fn(): array => ['renamed' => DB::table('takes')->update(['name' => 'x'])]);
        $task->refresh();
        self::assertSame(['waiting', 0], [$task->state, (int) $task->tries]);
    }
}
