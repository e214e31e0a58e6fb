<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Words;

use Cartella\Core\Exchange\ListProblem;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Words\CueReader;
use Cartella\Core\Words\CueWriter;
use Cartella\Core\Words\Exception\UnableToReadWords;
use Cartella\Core\Words\Transcript;
use Cartella\Core\Words\Word;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Timed text that others wrote, well or badly. */
final class CueTest extends TestCase
{
    /** @return list<string> */
    private static function texts(Transcript $transcript): array
    {
        return array_map(static fn(Word $word): string => $word->text, $transcript->words);
    }

    public function test_the_words_of_a_cue_share_its_time_by_their_letters(): void
    {
        ['transcript' => $read, 'problems' => $problems] = CueReader::read("1\r\n00:00:01,000 --> 00:00:03,000\r\nRead me the gauge.\r\n");
        self::assertSame([], $problems);
        self::assertSame(['Read', 'me', 'the', 'gauge.'], self::texts($read));
        self::assertSame(Ticks::PER_SECOND, $read->words[0]->startTicks);
        self::assertSame(3 * Ticks::PER_SECOND, $read->words[3]->endTicks);
        self::assertGreaterThan(
            $read->words[1]->endTicks - $read->words[1]->startTicks,
            $read->words[3]->endTicks - $read->words[3]->startTicks,
        );
    }

    public function test_voices_tags_and_signs_of_webvtt_are_no_words(): void
    {
        $text =
            "WEBVTT - Low Water\n\nSTYLE\n::cue { color: red }\n\nNOTE nobody says this\n\nfirst\n00:01.500 --> 00:02.500 align:start\n" .
            "<v.loud Mara Venn>The <i>tide</i> &amp; the <00:02.000>gate</v>\n\n00:03.000 --> 00:04.000\nQUILL: Is it oak?\n";
        ['transcript' => $read, 'problems' => $problems] = CueReader::read($text);
        self::assertSame([], $problems);
        self::assertSame(['The', 'tide', '&', 'the', 'gate', 'Is', 'it', 'oak?'], self::texts($read));
        self::assertSame(['Mara Venn', 'Quill'], array_values(array_unique(array_column($read->words, 'speaker'))));
        self::assertSame(intdiv(3 * Ticks::PER_SECOND, 2), $read->words[0]->startTicks);
    }

    /** @return array<string, array{string}> a text's bytes in every coding that people send */
    public static function codings(): array
    {
        $text = "1\n00:00:01,000 --> 00:00:02,000\nDéjà vu – “quoi”?\n";

        return [
            'UTF-8' => [$text],
            'UTF-8 with its mark' => ["\xEF\xBB\xBF" . $text],
            'UTF-16, little end first' => ["\xFF\xFE" . mb_convert_encoding($text, 'UTF-16LE', 'UTF-8')],
            'UTF-16, big end first' => ["\xFE\xFF" . mb_convert_encoding($text, 'UTF-16BE', 'UTF-8')],
            'Windows-1252' => [mb_convert_encoding($text, 'Windows-1252', 'UTF-8')],
            'old line ends' => [str_replace("\n", "\r", $text)],
        ];
    }

    #[DataProvider('codings')]
    public function test_every_coding_is_read(string $bytes): void
    {
        self::assertSame(['Déjà', 'vu', '“quoi”?'], self::texts(CueReader::read($bytes)['transcript']));
    }

    /** @return \Generator<string, array{string, int, list<int|null>}> text, words that are read, lines of problems */
    public static function malformed(): \Generator
    {
        $good = "1\n00:00:01,000 --> 00:00:02,000\nGood words\n\n";
        yield 'an end before its start' => [$good . "2\n00:00:05,000 --> 00:00:04,000\nno\n", 2, [6]];
        yield 'minutes over 59' => [$good . "2\n00:61:05,000 --> 00:62:04,000\nno\n", 2, [6]];
        yield 'seconds over 59' => [$good . "2\n00:00:75,000 --> 00:01:80,000\nno\n", 2, [6]];
        yield 'letters for digits' => [$good . "2\n00:0x:01,000 --> 00:00:04,000\nno\n", 2, [6]];
        yield 'a lost end' => [$good . "2\n00:00:05,000 -->\nno\n", 2, [6]];
        yield 'a lost start' => [$good . "2\n--> 00:00:05,000\nno\n", 2, [6]];
        yield 'no arrow' => [$good . "2\n00:00:05,000 00:00:06,000\nno\n", 2, [5]];
        yield 'a cue that says nothing' => [$good . "2\n00:00:05,000 --> 00:00:06,000\n\n", 2, [6]];
        yield 'a cue of signs' => [$good . "2\n00:00:05,000 --> 00:00:06,000\n♪ ♪ ...\n", 2, [6]];
        yield 'no empty line between cues' => ["1\n00:00:01,000 --> 00:00:02,000\none\n2\n00:00:03,000 --> 00:00:04,000\ntwo\n", 2, []];
        yield 'no numbers' => ["00:00:01,000 --> 00:00:02,000\none\n\n00:00:03,000 --> 00:00:04,000\ntwo\n", 2, []];
        yield 'numbers that jump' => ["9\n00:00:01,000 --> 00:00:02,000\none\n\n3\n00:00:03,000 --> 00:00:04,000\ntwo\n", 2, []];
        yield 'points for commas' => ["1\n00:00:01.000 --> 00:00:02.000\none two\n", 2, []];
        yield 'one digit of a second' => ["1\n00:00:01,5 --> 00:00:02,5\none two\n", 2, []];
        yield 'no part of a second' => ["1\n00:00:01 --> 00:00:02\none two\n", 2, []];
        yield 'no hours' => ["1\n00:01,000 --> 00:02,000\none two\n", 2, []];
        yield 'single digits' => ["1\n0:0:1,0 --> 0:0:2,0\none two\n", 2, []];
        yield 'places of the picture behind the times' => ["1\n00:00:01,000 --> 00:00:02,000 X1:10 X2:20\none two\n", 2, []];
        yield 'text before the first cue' => ["Made by somebody\n\n" . $good, 2, [1]];
        yield 'text after the last cue' => [$good . "the end\n", 2, [5]];
        yield 'a heading that is none' => ["WEBVTTX\n\n00:01.000 --> 00:02.000\none two\n", 2, [1]];
        yield 'tags that never end' => ["1\n00:00:01,000 --> 00:00:02,000\n<i one two\n", 3, []];
        yield 'tags in tags' => ["1\n00:00:01,000 --> 00:00:02,000\n<b><i><u>one</u></i></b> two\n", 2, []];
        yield 'commands of another format' => ["1\n00:00:01,000 --> 00:00:02,000\n{\\an8}one two\n", 2, []];
        yield 'entities' => ["1\n00:00:01,000 --> 00:00:02,000\none &lt;two&gt; &nope;\n", 3, []];
        yield 'zero bytes' => ["1\n00:00:01,000 --> 00:00:02,000\no\0ne two\n", 2, []];
        yield 'bytes that are no text' => ["1\n00:00:01,000 --> 00:00:02,000\none \xC3\x28 two\n", 3, []];
        yield 'overlapping cues' => ["1\n00:00:01,000 --> 00:00:05,000\none\n\n2\n00:00:02,000 --> 00:00:03,000\ntwo\n", 2, []];
        yield 'cues out of order' => ["1\n00:00:09,000 --> 00:00:10,000\ntwo\n\n2\n00:00:02,000 --> 00:00:03,000\none\n", 2, []];
        yield 'the same cue twice' => [$good . $good, 4, []];
        yield 'a cue of no time' => ["1\n00:00:01,000 --> 00:00:01,000\none two\n", 2, []];
        yield 'ninety-nine hours' => ["1\n99:59:59,999 --> 99:59:59,999\none\n", 1, []];
        yield 'a hundred hours' => [$good . "2\n100:00:00,000 --> 100:00:01,000\nno\n", 2, [6]];
        yield 'more digits than a clock has' => [$good . "2\n00:00:000001,000 --> 00:00:02,000\nno\n", 2, [6]];
        yield 'nine digits of a second' => ["1\n00:00:01.123456789 --> 00:00:02\none\n", 1, []];
        yield 'ten digits of a second' => [$good . "2\n00:00:03.1234567890 --> 00:00:04\nno\n", 2, [6]];
        yield 'negative times' => [$good . "2\n-00:00:03,000 --> 00:00:04,000\nno\n", 2, [6]];
        yield 'an arrow in the text' => ["1\n00:00:01,000 --> 00:00:02,000\none two\nthree --> four\n", 2, [4]];
        yield 'a long line' => [$good . "2\n00:00:05,000 --> 00:00:06,000\n" . str_repeat('a ', 2000) . "\n", 2, [7, 6]];
        yield 'a long word' => ["1\n00:00:01,000 --> 00:00:02,000\n" . str_repeat('a', 400) . "\n", 1, []];
        yield 'a region of WebVTT' => ["WEBVTT\n\nREGION\nid:fred\nwidth:40%\n\n00:01.000 --> 00:02.000 region:fred\none\n", 1, []];
        yield 'a note that never ends' => ["WEBVTT\n\n00:01.000 --> 00:02.000\none\n\nNOTE\n00:03.000 --> 00:04.000\ntwo\n", 1, []];
        yield 'JSON with a word of no text' => [
            '{"words":[{"text":"one","start_ticks":0,"end_ticks":9},{"text":"","start_ticks":1,"end_ticks":2}]}',
            1,
            [null],
        ];
        yield 'JSON with times that are text' => [
            '{"words":[{"text":"one","start_ticks":0,"end_ticks":9},{"text":"two","start_ticks":"1","end_ticks":2}]}',
            1,
            [null],
        ];
        yield 'JSON with a word that ends early' => [
            '{"words":[{"text":"one","start_ticks":0,"end_ticks":9},{"text":"two","start_ticks":5,"end_ticks":2}]}',
            1,
            [null],
        ];
        yield 'JSON with a word before the start' => [
            '{"words":[{"text":"one","start_ticks":0,"end_ticks":9},{"text":"two","start_ticks":-5,"end_ticks":2}]}',
            1,
            [null],
        ];
        yield 'JSON with a list for a word' => ['{"words":[{"text":"one","start_ticks":0,"end_ticks":9},["two"]]}', 1, [null]];
        yield 'JSON with more confidence than there is' => [
            '{"words":[{"text":"one","start_ticks":0,"end_ticks":9,"confidence":7,"speaker":[]}]}',
            1,
            [],
        ];
        yield 'a voice without a name' => ["WEBVTT\n\n00:01.000 --> 00:02.000\n<v >one two\n", 2, []];
        yield 'a voice that is a page long' => ["WEBVTT\n\n00:01.000 --> 00:02.000\n<v " . str_repeat('M', 100) . ">one two\n", 2, []];
    }

    /** @param  list<int|null>  $lines */
    #[DataProvider('malformed')]
    public function test_what_is_malformed_is_told_with_its_line_and_the_rest_is_read(string $text, int $words, array $lines): void
    {
        ['transcript' => $read, 'problems' => $problems] = CueReader::read($text);
        self::assertCount($words, $read->words, implode(' ', self::texts($read)));
        self::assertSame($lines, array_map(static fn(ListProblem $one): ?int => $one->line, $problems));
        foreach ($read->words as $word) {
            self::assertLessThanOrEqual($word->endTicks, $word->startTicks);
            self::assertLessThanOrEqual(Word::LONGEST, mb_strlen($word->text));
            self::assertTrue(mb_check_encoding($word->text, 'UTF-8'));
        }
    }

    /** @return array<string, array{string}> */
    public static function nothing(): array
    {
        return [
            'an empty file' => [''],
            'a letter to somebody' => ["Dear Mara,\n\nthe tide is out.\n"],
            'a heading alone' => ["WEBVTT\n"],
            'JSON of something else' => ['{"cues":[]}'],
            'JSON that is broken' => ['{"words":[{"text":"one"'],
            'no words in JSON' => ['{"words":[]}'],
            'random bytes' => [random_bytes(300)],
        ];
    }

    #[DataProvider('nothing')]
    public function test_no_cue_at_all_is_refused(string $text): void
    {
        $this->expectException(UnableToReadWords::class);
        CueReader::read($text);
    }

    public function test_what_is_written_is_read_again(): void
    {
        $words = [];
        for ($n = 0; $n < 60; $n++) {
            $start = (int) (($n * 0.4 + ($n > 30 ? 2 : 0)) * Ticks::PER_SECOND);
            $words[] = new Word(
                $n === 12 ? '<b>&' : "word$n" . ($n % 9 === 8 ? '.' : ''),
                $start,
                $start + intdiv(Ticks::PER_SECOND, 4),
                $n < 20 ? 'Mara' : 'Quill',
            );
        }
        foreach ([CueWriter::srt(new Transcript($words)), CueWriter::vtt(new Transcript($words))] as $text) {
            ['transcript' => $read, 'problems' => $problems] = CueReader::read($text);
            self::assertSame([], $problems, $text);
            self::assertCount(60, $read->words);
            self::assertSame('word59', $read->words[59]->text);
            self::assertSame(['Mara', 'Quill'], array_values(array_unique(array_filter(array_column($read->words, 'speaker')))));
            self::assertEqualsWithDelta($words[59]->endTicks, $read->words[59]->endTicks, Ticks::PER_SECOND / 1000);
            preg_match_all('/^(?!\d+$)(?!.*-->).+$/m', $text, $lines);
            self::assertLessThanOrEqual(62, max(array_map(mb_strlen(...), $lines[0])));
        }
    }
}
