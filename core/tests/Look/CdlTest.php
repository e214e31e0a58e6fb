<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Look;

use Cartella\Core\Look\Cdl;
use Cartella\Core\Look\Exception\InvalidLook;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class CdlTest extends TestCase
{
    private const NODE =
        '<ColorCorrection id="mill"><SOPNode><Slope>1.1 1 0.9</Slope><Offset>0.02 0 -0.01</Offset><Power>1 ' .
        '1.2 1</Power></SOPNode><SatNode><Saturation>0.8</Saturation></SatNode></ColorCorrection>';

    /** @return array<string, array{string}> */
    public static function files(): array
    {
        return [
            '.cc' => [self::NODE],
            '.ccc' => [
                '<?xml version="1.0" encoding="UTF-8"?><ColorCorrectionCollection xmlns="urn:ASC:CDL:v1.2">' .
                self::NODE .
                '</ColorCorrectionCollection>',
            ],
            '.cdl' => [
                '<ColorDecisionList xmlns="urn:ASC:CDL:v1.01"><ColorDecision><MediaRef ref="x"/>' .
                self::NODE .
                '</ColorDecision></ColorDecisionList>',
            ],
            'with a byte order mark' => ["\xEF\xBB\xBF<?xml version=\"1.0\"?>" . self::NODE],
        ];
    }

    #[DataProvider('files')]
    public function test_every_kind_of_file_is_read(string $text): void
    {
        self::assertEquals(['mill' => Cdl::of([1.1, 1, 0.9], [0.02, 0, -0.01], [1, 1.2, 1], 0.8)], Cdl::read($text));
    }

    public function test_what_is_written_is_read_again_and_nodes_that_are_left_out_change_nothing(): void
    {
        $looks = ['a & b' => Cdl::of([0.5, 1, 2], [-0.25, 0, 0.125], [0.9, 1, 1.1], 1.5), '2' => Cdl::identity()];
        self::assertEquals($looks, Cdl::read(Cdl::collection($looks)));
        self::assertEquals(Cdl::identity(), Cdl::read('<ColorCorrection/>')['1']);
        self::assertSame('(0.5 1 2)(-0.25 0 0.125)(0.9 1 1.1)', $looks['a & b']->sop());
    }

    public function test_slope_comes_before_offset_power_after_both_and_saturation_last(): void
    {
        $look = Cdl::of([2, 1, 1], [-0.2, 0.1, 0], [2, 1, 0.5], 0.0);
        $red = (0.5 * 2 - 0.2) ** 2;
        $luma = 0.2126 * $red + 0.7152 * 0.6 + 0.0722 * 0.5 ** 0.5;
        self::assertEqualsWithDelta(
            [$luma, $luma, $luma],
            $look->apply([0.5, 0.5, 0.5]),
            1e-9,
            'without saturation all channels are the luma',
        );
        self::assertSame([0.25, 0.5, 0.75], Cdl::identity()->apply([0.25, 0.5, 0.75]));
        self::assertSame(
            [1.0, 0.0, 0.0],
            Cdl::of([9, 1, 1], [0, -5, -5], [1, 1, 1], 1)->apply([0.5, 0.5, 0.5]),
            'nothing leaves the range',
        );
    }

    /** @return array<string, array{string}> */
    public static function refused(): array
    {
        return [
            'entities' => ['<!DOCTYPE x [<!ENTITY a SYSTEM "file:///etc/passwd">]><ColorCorrection id="&a;"/>'],
            'entities in sixteen bits' => [
                "\xFF\xFE" . mb_convert_encoding('<!DOCTYPE x [<!ENTITY a "b">]><ColorCorrection/>', 'UTF-16LE'),
            ],
            'no XML' => ['slope 1 1 1'],
            'no correction' => ['<ColorCorrectionCollection/>'],
            'two numbers' => ['<ColorCorrection><SOPNode><Slope>1 1</Slope></SOPNode></ColorCorrection>'],
            'a word' => ['<ColorCorrection><SatNode><Saturation>more</Saturation></SatNode></ColorCorrection>'],
            'a slope below zero' => ['<ColorCorrection><SOPNode><Slope>1 -1 1</Slope></SOPNode></ColorCorrection>'],
            'a power of zero' => ['<ColorCorrection><SOPNode><Power>0 1 1</Power></SOPNode></ColorCorrection>'],
            'endless' => ['<ColorCorrection><SOPNode><Offset>1e999 0 0</Offset></SOPNode></ColorCorrection>'],
        ];
    }

    #[DataProvider('refused')]
    public function test_what_is_no_look_is_refused_with_the_next_step(string $text): void
    {
        try {
            Cdl::read($text);
            self::fail('It was read.');
        } catch (InvalidLook $trouble) {
            self::assertNotSame('', $trouble->fix());
        }
    }
}
