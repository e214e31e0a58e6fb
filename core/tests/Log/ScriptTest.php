<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Log;

use Cartella\Core\Log\Script;
use PHPUnit\Framework\TestCase;

final class ScriptTest extends TestCase
{
    public function test_scenes_carry_number_heading_and_who_speaks(): void
    {
        $scenes = Script::scenes(
            "Title: Low Water\n\nINT. WHEEL ROOM - DAY #3#\n\nMara unlocks the wheel.\n\nMARA (V.O.)\nIt turns " .
                "by itself.\n\nTOBIAS QUILL\n(low)\nIt does not.\n\nMARA\nListen.\n\n.THE FAR BANK #A7#\n\nNothing " .
                "moves.\n\nCUT TO:\n\n@McVenn\nHo!\n",
        );
        self::assertSame(['3', 'A7'], array_column($scenes, 'scene'));
        self::assertSame(['INT. WHEEL ROOM - DAY', 'THE FAR BANK'], array_column($scenes, 'heading'));
        self::assertSame([['Mara', 'Tobias Quill'], ['Mcvenn']], array_column($scenes, 'characters'));
        self::assertSame([3, 17], array_column($scenes, 'line'));
    }

    public function test_notes_and_boneyard_are_no_scenes(): void
    {
        self::assertSame(
            ['1'],
            array_column(Script::scenes("EXT. MILL - DAY\n\n/*\n\nINT. CUT SCENE - DAY\n\n*/\n\n[[ INT. a thought ]]\n\nRain.\n"), 'scene'),
        );
    }

    public function test_plain_text_has_its_numbers_at_both_edges(): void
    {
        $scenes = Script::scenes("12   INT. ATTIC - NIGHT   12\n\nQuill reads.\n\n12A  INT. ATTIC - LATER  12A\n\nMara listens.\n");
        self::assertSame(['12', '12A'], array_column($scenes, 'scene'));
        self::assertSame('INT. ATTIC - NIGHT', $scenes[0]['heading']);
    }

    public function test_lengths_are_eighths_of_a_page(): void
    {
        $scenes = Script::scenes("INT. A - DAY\n\nShort.\n\nINT. B - DAY\n\n" . str_repeat("A line of what happens here.\n", 53) . "\n");
        self::assertSame([1, 8], array_column($scenes, 'eighths'));
        self::assertSame(['1/8', '1', '2 3/8'], [Script::pages(1), Script::pages(8), Script::pages(19)]);
    }

    public function test_a_file_that_is_no_script_has_no_scene(): void
    {
        self::assertSame([], Script::scenes("\xFF\xFE\x00 nothing here \n interior thoughts\n"));
    }
}
