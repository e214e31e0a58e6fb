<?php

declare(strict_types=1);

namespace Tests\App\Undo;

use App\Domain\Undo\RowChange;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class RowChangeTest extends TestCase
{
    private const RULES = ['together' => [['scene', 'setup']], 'byKey' => ['set_by'], 'derived' => ['updated_at']];

    /**
     * @return array<string, array{array<string, mixed>, array<string, mixed>, array<string, mixed>, array<string, mixed>,
     *     list<string>}> from, to, now, what is written, what stays
     */
    public static function rows(): array
    {
        return [
            'as the step left it' => [['size' => 'Wide'], ['size' => ''], ['size' => 'Wide', 'notes' => 'x'], ['size' => ''], []],
            'another field changed' => [['size' => 'Wide'], ['size' => ''], ['size' => 'Wide', 'notes' => 'other'], ['size' => ''], []],
            'one of two changed' => [
                ['size' => 'Wide', 'notes' => 'a'],
                ['size' => '', 'notes' => null],
                ['size' => 'Wide', 'notes' => 'b'],
                ['size' => ''],
                ['notes'],
            ],
            'a slate goes back whole or not at all' => [
                ['scene' => '3', 'setup' => '3A'],
                ['scene' => '4', 'setup' => '4A'],
                ['scene' => '3', 'setup' => '3B'],
                [],
                ['setup', 'scene'],
            ],
            'only the time of saving differs' => [
                ['size' => 'Wide', 'updated_at' => '1'],
                ['size' => '', 'updated_at' => '0'],
                ['size' => 'Wide', 'updated_at' => '2'],
                ['size' => '', 'updated_at' => '0'],
                [],
            ],
            'keys of others stay' => [
                ['size' => 'W', 'set_by' => '{"size":1}'],
                ['size' => '', 'set_by' => null],
                ['size' => 'W', 'set_by' => '{"size":1,"notes":2}'],
                ['size' => '', 'set_by' => '{"notes":2}'],
                [],
            ],
            'numbers as the database gives them' => [
                ['is_mos' => true, 'take' => 3],
                ['is_mos' => false, 'take' => 2],
                ['is_mos' => 1, 'take' => '3'],
                ['is_mos' => false, 'take' => 2],
                [],
            ],
            'nothing is not an empty text' => [['notes' => null], ['notes' => 'x'], ['notes' => ''], [], ['notes']],
        ];
    }

    /**
     * @param  array<string, mixed>  $from
     * @param  array<string, mixed>  $to
     * @param  array<string, mixed>  $now
     * @param  array<string, mixed>  $write
     * @param  list<string>  $stayed
     */
    #[DataProvider('rows')]
    public function test_each_field_goes_back_where_nobody_changed_it_since(
        array $from,
        array $to,
        array $now,
        array $write,
        array $stayed,
    ): void {
        $go = RowChange::of($from, $to, $now, self::RULES);
        self::assertSame([$write, $stayed], [$go->write, $go->stayed]);
    }
}
