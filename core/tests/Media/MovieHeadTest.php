<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Media;

use Cartella\Core\Media\MovieHead;
use Cartella\Core\Tests\Support\Folder;
use PHPUnit\Framework\TestCase;

final class MovieHeadTest extends TestCase
{
    use Folder;

    private static function box(string $type, string $content, bool $isWide = false): string
    {
        return $isWide
            ? pack('N', 1) . $type . pack('J', 16 + strlen($content)) . $content
            : pack('N', 8 + strlen($content)) . $type . $content;
    }

    /** @return array{bool, int|null}|null */
    private function head(string $content): ?array
    {
        $head = MovieHead::read($this->file('a.mov', $content));

        return $head === null ? null : [$head->isWhole, $head->createdAt];
    }

    public function test_a_closed_file_says_when_it_was_made_in_either_version_of_its_header(): void
    {
        $old = self::box('moov', self::box('mvhd', "\0\0\0\0" . pack('N', 2_082_844_800 + 1_000_000) . str_repeat("\0", 92)));
        $new = self::box('moov', self::box('udta', 'x') . self::box('mvhd', "\1\0\0\0" . pack('J', 2_082_844_800 + 2_000_000)));
        self::assertSame([true, 1_000_000], $this->head(self::box('mdat', 'picture') . $old));
        self::assertSame([true, 2_000_000], $this->head(self::box('mdat', 'picture', true) . $new), 'a box of 64 bits before it');
    }

    public function test_a_clock_that_was_never_set_says_nothing(): void
    {
        self::assertSame([true, null], $this->head(self::box('moov', self::box('mvhd', str_repeat("\0", 12)))));
    }

    public function test_a_header_that_is_cut_or_empty_says_nothing_and_breaks_nothing(): void
    {
        self::assertSame([true, null], $this->head(self::box('moov', self::box('mvhd', "\0\0"))));
        self::assertSame([true, null], $this->head(self::box('moov', pack('N', 0xffff) . 'mvhd')));
        self::assertSame([false, null], $this->head(''));
        self::assertSame([false, null], $this->head('short'));
    }

    public function test_a_last_box_without_a_length_goes_to_the_end(): void
    {
        self::assertSame([true, null], $this->head(self::box('moov', '') . pack('N', 0) . 'mdat' . 'to the end'));
    }

    public function test_a_file_that_is_not_there_has_no_head(): void
    {
        self::assertNull(MovieHead::read($this->folder . '/nothing.mov'));
    }
}
