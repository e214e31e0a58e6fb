<?php

declare(strict_types=1);

namespace Tests\App\People;

use App\Support\KeptSessions;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;
use Tests\App\TestCase;

final class SessionsTest extends TestCase
{
    private int $writes = 0;

    private function handler(): KeptSessions
    {
        return new KeptSessions(DB::connection(), 'sessions', 120, $this->app);
    }

    protected function setUp(): void
    {
        parent::setUp();
        $this->handler()->write('one', 'a:1:{s:1:"x";i:1;}');
        DB::listen(function (QueryExecuted $query): void {
            $this->writes += (int) preg_match('/\A(?:insert|update)\b/i', $query->sql);
        });
    }

    /** A request that reads the session and leaves it as it says. */
    private function request(string $data, string $id = 'one'): void
    {
        $handler = $this->handler();
        $handler->read('one');
        $handler->write($id, $data);
    }

    public function test_a_session_that_holds_the_same_is_written_once_a_minute_only(): void
    {
        $this->request('a:1:{s:1:"x";i:1;}');
        $this->request('a:1:{s:1:"x";i:1;}');
        self::assertSame(0, $this->writes);
        $this->travel(61)->seconds();
        $this->request('a:1:{s:1:"x";i:1;}');
        self::assertSame(1, $this->writes, 'that it is used is still known');
    }

    public function test_what_changed_is_written_at_once_and_so_is_a_session_under_another_name(): void
    {
        $this->request('a:1:{s:1:"x";i:2;}');
        self::assertSame('a:1:{s:1:"x";i:2;}', $this->handler()->read('one'));
        $this->request('a:1:{s:1:"x";i:2;}', 'two');
        self::assertSame('a:1:{s:1:"x";i:2;}', $this->handler()->read('two'));
    }

    public function test_a_session_that_was_ended_meanwhile_or_is_too_old_opens_nothing(): void
    {
        DB::table('sessions')->where('id', 'one')->delete();
        self::assertSame('', $this->handler()->read('one'));
        $this->handler()->write('three', 'x');
        $this->travel(121)->minutes();
        self::assertSame('', $this->handler()->read('three'));
    }
}
