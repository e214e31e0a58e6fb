<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Media;

use Cartella\Core\Media\FrameMap;
use Cartella\Core\Time\FrameRate;
use PHPUnit\Framework\TestCase;

final class FrameMapTest extends TestCase
{
    public function test_a_picture_is_shown_from_the_frame_nearest_to_it_until_the_next(): void
    {
        $map = FrameMap::of([0.0, 0.041, 0.118, 0.121, 0.26], 0.0, FrameRate::parse('25'), 8);
        self::assertSame([0, 1, 1, 3, 3, 3, 3, 4], $map->pictures, 'of two that fall on one frame the later is shown');
        self::assertSame($map->pictures, FrameMap::ofBytes($map->toBytes())->pictures);
    }

    public function test_timestamps_that_begin_elsewhere_or_run_beyond_the_end_do_no_harm(): void
    {
        $map = FrameMap::of([10.0, 10.04, 10.08, 900.0], 10.0, FrameRate::parse('25'), 4);
        self::assertSame([0, 1, 2, 2], $map->pictures);
        self::assertSame([0, 0], FrameMap::of([], 0.0, FrameRate::parse('25'), 2)->pictures);
    }
}
