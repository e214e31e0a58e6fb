<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Footage;

use Cartella\Core\Footage\ChannelSet;
use Cartella\Core\Footage\InvalidReference;
use Cartella\Core\Footage\Reference;
use Cartella\Core\Footage\ReferenceKind;
use Cartella\Core\Footage\Span;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ReferenceTest extends TestCase
{
    private const ID = '01ARZ3NDEKTSV4RRFFQ69G5FAV';

    public function test_it_is_read_as_it_is_written(): void
    {
        foreach (
            [
                'clip:' . self::ID,
                'take:' . self::ID . '@B',
                'sequence:' . self::ID . '#0-28224000',
                'clip:' . self::ID . '#28224000-56448000+1.3.12',
                'subclip:' . self::ID,
                'take:' . self::ID . '@Å2+4',
            ]
            as $text
        ) {
            self::assertSame($text, (string) Reference::parse($text));
        }
    }

    public function test_channels_said_in_any_order_and_twice_are_the_same_channels(): void
    {
        $reference = new Reference(ReferenceKind::Clip, self::ID, channels: new ChannelSet([3, 1, 3]));
        self::assertSame('clip:' . self::ID . '+1.3', (string) $reference);
        self::assertSame((string) $reference, (string) Reference::parse('clip:' . self::ID . '+3.1.3'));
    }

    public function test_a_stretch_knows_whether_it_lies_inside(): void
    {
        $span = new Span(10, 30);
        self::assertSame([20, true, false], [$span->durationTicks(), $span->isInside(30), $span->isInside(29)]);
    }

    /** @return iterable<string, array{string}> */
    public static function nothing(): iterable
    {
        yield 'nothing' => [''];
        yield 'a kind that is none' => ['film:' . self::ID];
        yield 'no ULID' => ['clip:../../etc/passwd'];
        yield 'an angle of a clip' => ['clip:' . self::ID . '@A'];
        yield 'a stretch that ends before it begins' => ['clip:' . self::ID . '#30-10'];
        yield 'an empty stretch' => ['clip:' . self::ID . '#10-10'];
        yield 'channel nought' => ['clip:' . self::ID . '+0'];
        yield 'a subclip of a subclip' => ['subclip:' . self::ID . '#0-10'];
        yield 'a number past all clocks' => ['clip:' . self::ID . '#0-' . str_repeat('9', 40)];
        yield 'a line break behind it' => ['clip:' . self::ID . "\n"];
    }

    #[DataProvider('nothing')]
    public function test_what_names_nothing_is_refused(string $text): void
    {
        $this->expectException(InvalidReference::class);
        Reference::parse($text);
    }
}
