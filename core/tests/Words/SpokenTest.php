<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Words;

use Cartella\Core\Slate\SlateStyle;
use Cartella\Core\Time\Ticks;
use Cartella\Core\Words\Aligner;
use Cartella\Core\Words\LanguageModel;
use Cartella\Core\Words\Listening;
use Cartella\Core\Words\Pronunciations;
use Cartella\Core\Words\Reads;
use Cartella\Core\Words\ScriptLine;
use Cartella\Core\Words\SpokenSlate;
use Cartella\Core\Words\SpokenText;
use Cartella\Core\Words\Word;
use Cartella\Core\Words\WordAlignment;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What words mean: slates that are called, lines that are read, texts that are laid beside a sound. */
final class SpokenTest extends TestCase
{
    /**
     * Words of a third of a second each; a stroke is a second and a half of quiet.
     *
     * @return list<Word>
     */
    private static function said(string $text, float $confidence = 0.9): array
    {
        $words = [];
        $at = 0.5;
        foreach (explode(' ', $text) as $word) {
            if ($word === '/') {
                $at += 1.5;

                continue;
            }
            $words[] = new Word($word, (int) ($at * Ticks::PER_SECOND), (int) (($at + 0.3) * Ticks::PER_SECOND), null, $confidence);
            $at += 0.33;
        }

        return $words;
    }

    /** @return array<string, array{string, string|null, SlateStyle}> */
    public static function slates(): array
    {
        $letter = SlateStyle::Letter;

        return [
            'spelled out' => ['scene twelve alpha take two', '12A/2', $letter],
            'without the word scene' => ['seven bravo take three / action', '7B/3', $letter],
            'a scene without a letter' => ['scene three take one', '3/1', $letter],
            'twenty and one' => ['scene twenty one charlie take twelve', '21C/12', $letter],
            'hundreds' => ['scene one hundred and two take four', '102/4', $letter],
            'digit by digit' => ['scene one oh two delta take five', '102D/5', $letter],
            'in pairs' => ['scene one twelve take six', '112/6', $letter],
            'two letters' => ['scene nine alpha bravo take seven', '9AB/7', $letter],
            'a letter by its name' => ['scene nine b take eight', '9B/8', $letter],
            'what sounds like the number' => ['scene nine take to', '9/2', $letter],
            'figures that a service wrote' => ['Scene 12 Alpha, take 3.', '12A/3', $letter],
            'with a pick-up behind it' => ['scene twelve take two pickup', '12/2', $letter],
            'by number' => ['slate one four five take three', '145/3', SlateStyle::Number],
            'no take' => ['scene twelve alpha', null, $letter],
            'no number' => ['take two', null, $letter],
            'take in a sentence' => ['you take two sugars do you not', null, $letter],
            'a number in a sentence' => ['I count eleven and I take two of them', null, $letter],
            'a long way apart' => ['seven / / take two', null, $letter],
            'a letter that slates skip' => ['scene five oscar take two', null, $letter],
        ];
    }

    #[DataProvider('slates')]
    public function test_a_called_slate_is_read_and_nothing_else_is_one(string $text, ?string $label, SlateStyle $style): void
    {
        $heard = SpokenSlate::of(self::said($text), $style);
        self::assertSame($label, $heard->slate?->label());
        if ($label !== null) {
            self::assertSame((int) (0.5 * Ticks::PER_SECOND), $heard->slateTicks);
        }
    }

    public function test_calls_stand_by_themselves(): void
    {
        $words = self::said(
            'scene three take one / and action / there is no action on this mill / we cut the oak in May / and cut thank you',
        );
        $heard = SpokenSlate::of($words);
        $at = static fn(string $text, int $which): int => array_values(
            array_filter($words, static fn(Word $word): bool => $word->text === $text),
        )[$which]->startTicks;
        self::assertSame($at('action', 0), $heard->actions[0]['ticks'] ?? null);
        self::assertSame($at('cut', 1), $heard->cutTicks);
        $none = SpokenSlate::of(self::said('he wants action now / you cut it too short my friend'));
        self::assertSame([[], null], [$none->actions, $none->cutTicks]);
    }

    public function test_a_slate_is_as_sure_as_its_least_sure_word(): void
    {
        $words = self::said('scene three take one');
        $words[3] = new Word('one', $words[3]->startTicks, $words[3]->endTicks, null, 0.31);
        self::assertSame(0.31, SpokenSlate::of($words)->slateConfidence);
    }

    public function test_what_is_written_is_said_in_words(): void
    {
        foreach (
            [
                'Mr.' => 'mister',
                '12A' => 'twelve a',
                '1,250' => 'one thousand two hundred and fifty',
                '1941' => 'nineteen forty one',
                '2nd' => 'two',
                '1.40' => 'one point four zero',
                'half-tide' => 'half tide',
                'don’t' => "don't",
                '“Shut' => 'shut',
                '&' => 'and',
            ]
            as $written => $said
        ) {
            self::assertSame($said, implode(' ', SpokenText::spoken((string) $written)), (string) $written);
        }
        self::assertSame(['tide', 'out'], array_map(SpokenText::key(...), SpokenText::written('Tide … — out!')));
    }

    public function test_a_model_makes_what_was_written_likelier_and_gives_every_word_a_chance(): void
    {
        $model = new LanguageModel();
        $model->learn(['the', 'tide', 'is', 'out'], 3);
        $model->learn(['the', 'mill', 'is', 'old']);
        $arpa = $model->arpa();
        preg_match_all('/^(-?[\d.]+) (\S+) (\S+)(?: -?[\d.]+)?$/m', $arpa, $pairs, PREG_SET_ORDER);
        $chance = [];
        foreach ($pairs as [, $log, $before, $word]) {
            $chance["$before $word"] = 10 ** (float) $log;
        }
        self::assertGreaterThan(2 * $chance['the mill'], $chance['the tide']);
        // What follows a word adds up to one, with what is left for words that never did.
        preg_match('/^(-?[\d.]+) the (-?[\d.]+)$/m', $arpa, $the);
        preg_match_all('/^(-?[\d.]+) ([a-z]+|<\/s>)(?: -?[\d.]+)?$/m', $arpa, $single, PREG_SET_ORDER);
        $rest = 0.0;
        foreach ($single as [, $log, $word]) {
            $rest += isset($chance["the $word"]) ? 0 : 10 ** ((float) $log + (float) $the[2]);
        }
        self::assertEqualsWithDelta(1.0, $chance['the tide'] + $chance['the mill'] + $rest, 0.02);
    }

    public function test_phonetic_letters_become_those_of_the_dictionary(): void
    {
        self::assertSame('K W IH L', Pronunciations::arpabet('kwˈɪl'));
        self::assertSame('CH AA R L IY', Pronunciations::arpabet('tʃˈɑːɹli'));
        self::assertSame('', Pronunciations::arpabet('!'));
    }

    public function test_a_channel_is_a_speakers_only_where_its_name_says_so(): void
    {
        $owners = array_map(Listening::owner(...), [
            'lav Mara',
            'LAV 2 Tobias',
            'Radio_Edda',
            'RF1: Jonn',
            'boom',
            'Boom 1',
            'mix',
            'Ch 3',
            'TC',
            'lav',
            'Track 4',
            '',
        ]);
        self::assertSame(['Mara', 'Tobias', 'Edda', 'Jonn', null, null, null, null, null, null, null, null], $owners);
    }

    public function test_two_texts_are_laid_beside_each_other_however_long_they_are(): void
    {
        $x = $y = [];
        for ($n = 0; $n < 9000; $n++) {
            $x[] = ['the', 'tide', 'turns', 'at', 'noon', "word$n"][$n % 6];
            // Every fiftieth word is missing, every seventieth is another one.
            if ($n % 50 !== 0) {
                $y[] = $n % 70 === 0 ? 'gravel' : $x[$n];
            }
        }
        $pairs = WordAlignment::of($x, $y);
        $right = count(array_filter($pairs, static fn(int $at, int $of): bool => $x[$of] === $y[$at], ARRAY_FILTER_USE_BOTH));
        self::assertGreaterThan(8500, $right);
        $last = -1;
        foreach ($pairs as $at) {
            self::assertGreaterThan($last, $at);
            $last = $at;
        }
        self::assertSame([0 => 0, 1 => 1, 2 => 2], WordAlignment::of(['read', 'me', 'gauge'], ['read', 'me', 'gage']));
        self::assertSame([], WordAlignment::of(['one'], []));
    }

    public function test_each_read_of_a_line_is_found_and_what_nobody_wrote_is_left(): void
    {
        $lines = [
            new ScriptLine('7', 0, 'Mara', 'Read me the gauge.'),
            new ScriptLine('7', 1, 'Quill', 'One metre forty, and falling.'),
            new ScriptLine('7', 2, 'Mara', 'No.'),
            new ScriptLine('7', 3, 'Mara', 'Then somebody has opened the sluice.'),
            new ScriptLine('7', 4, 'Quill', 'It was not me.'),
        ];
        $words = self::said(
            'read me the gauge / sorry again / read me the gauge / one metre forty and falling / no / ' .
                'then somebody opened the sluice / what no lunch',
        );
        $reads = Reads::of($lines, $words);
        self::assertSame([0, 0, 1, 2, 3], array_column($reads, 'line'));
        self::assertEqualsWithDelta(5 / 6, $reads[4]['share'], 0.01);
        $left = array_map(static fn(int $at): string => $words[$at]->text, Reads::unwritten($words, $reads));
        self::assertSame(['sorry', 'again', 'what', 'no', 'lunch'], $left);
        $spelled = Reads::spelled($lines, $words);
        self::assertSame(
            ['Read', 'me', 'the', 'gauge.', 'Mara'],
            [...array_column(array_slice($spelled, 0, 4), 'text'), $spelled[0]->speaker],
        );
        self::assertNull($spelled[5]->speaker);
    }

    public function test_lines_that_are_nearly_the_same_are_told_apart(): void
    {
        $lines = [
            new ScriptLine('7', 0, 'Quill', 'There is a crack along the gate.'),
            new ScriptLine('7', 1, 'Mara', 'There has always been a crack along the gate.'),
        ];
        $reads = Reads::of($lines, self::said('there is a crack along the gate there has always been a crack along the gate'));
        self::assertSame(
            [[0, 0, 6], [1, 7, 15]],
            array_map(static fn(array $one): array => [$one['line'], $one['from'], $one['to']], $reads),
        );
    }

    public function test_an_aligned_text_keeps_all_its_words_and_takes_the_times_that_were_heard(): void
    {
        $heard = self::said('read me gauge / one metre forty and falling');
        $aligned = Aligner::align("MARA: Read me the gauge.\nQUILL: One metre 40, and falling.\n", $heard, 20 * Ticks::PER_SECOND);
        $words = $aligned->transcript->words;
        self::assertSame('Read me the gauge. One metre 40, and falling.', implode(' ', array_column($words, 'text')));
        self::assertSame(['Mara', 'Quill'], [$words[0]->speaker, $words[8]->speaker]);
        self::assertSame($heard[2]->startTicks, $words[3]->startTicks);
        self::assertSame($heard[5]->startTicks, $words[6]->startTicks, 'forty is what 40 is said as');
        self::assertNull($words[2]->confidence);
        self::assertSame([$heard[1]->endTicks, $heard[2]->startTicks], [$words[2]->startTicks, $words[2]->endTicks]);
        self::assertEqualsWithDelta(6 / 9, $aligned->matched, 0.01, 'read and me were not heard with the word behind them');
    }
}
