<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Lineup;

use Cartella\Core\Lineup\RanAlone;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class RanAloneTest extends TestCase
{
    /**
     * @return array<string, array{RanAlone|null, bool, int, bool, bool, string}> what it is, is sound, seconds, has a slate, is heard,
     *     words
     */
    public static function clips(): array
    {
        return [
            'words without picture' => [RanAlone::Wild, true, 30, false, true, '7-WILD1'],
            'quiet without picture' => [RanAlone::RoomTone, true, 30, false, false, 'S-0012'],
            'the recorder calls it room tone' => [RanAlone::RoomTone, true, 30, false, true, '12-TONE1 Room tone, wheel stopped'],
            'mute picture of a take' => [RanAlone::Mos, false, 20, true, false, 'A001C009'],
            'picture whose own microphone heard the take' => [null, false, 20, true, true, 'A001C004'],
            'a few seconds of nothing in particular' => [RanAlone::FalseStart, false, 3, false, true, 'B001C003'],
            'a short take is a take' => [null, false, 3, true, true, 'B001C004'],
            'a long picture without a slate' => [null, false, 20, false, false, 'C001C001'],
        ];
    }

    #[DataProvider('clips')]
    public function test_what_ran_alone_is_named_by_what_it_holds(
        ?RanAlone $what,
        bool $isSound,
        int $seconds,
        bool $hasSlate,
        bool $isHeard,
        string $words,
    ): void {
        self::assertSame($what, RanAlone::of($isSound, $seconds * Ticks::PER_SECOND, $hasSlate, $isHeard, $words));
    }
}
