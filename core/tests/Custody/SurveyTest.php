<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Custody;

use Cartella\Core\Custody\CardSurvey;
use Cartella\Core\Custody\Survey;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Tests\Support\WavBuilder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class SurveyTest extends TestCase
{
    use Folder;

    /** Seconds from 1904 to 2026-10-05 09:12:10 UTC. */
    private const MADE = 2_082_844_800 + 1_791_191_530;

    private function look(): CardSurvey
    {
        return Survey::of($this->folder);
    }

    private static function box(string $type, string $content): string
    {
        return pack('N', 8 + strlen($content)) . $type . $content;
    }

    private static function movie(int $made = self::MADE): string
    {
        return self::box('ftyp', 'qt  ') .
            self::box('mdat', str_repeat('m', 50)) .
            self::box('moov', self::box('mvhd', "\0\0\0\0" . pack('N', $made) . str_repeat("\0", 92)));
    }

    /** @return list<string> */
    private function kinds(): array
    {
        return array_column($this->look()->problems, 'kind');
    }

    public function test_first_and_last_clip_are_told_by_their_own_dates(): void
    {
        $this->file('b.mov', self::movie());
        $this->file('a.mov', self::movie(self::MADE + 3600));
        $this->file('a.txt', 'a note');
        $survey = $this->look();
        self::assertSame([3, 2, 0, ['2026-10-05' => 2]], [$survey->files, $survey->clips, $survey->sounds, $survey->dates]);
        self::assertSame(
            [['name' => 'b.mov', 'at' => '2026-10-05 09:12:10'], ['name' => 'a.mov', 'at' => '2026-10-05 10:12:10']],
            [$survey->first, $survey->last],
        );
        self::assertSame([], $survey->problems);
    }

    public function test_a_recorder_says_its_tape_and_when_it_began(): void
    {
        WavBuilder::pcm(100)
            ->withBext(0, '2026-10-05', '09:12:10')
            ->withIxml('<TAPE>S001</TAPE>')
            ->write($this->folder . '/one.wav');
        $survey = $this->look();
        self::assertSame(['S001', 1, '2026-10-05 09:12:10'], [$survey->tape, $survey->sounds, $survey->first['at'] ?? null]);
    }

    /** @return array<string, array{string, string, string}> name, content, kind of problem */
    public static function trouble(): array
    {
        return [
            'an empty clip' => ['a.mov', '', 'empty'],
            'a movie without its index' => ['a.mov', self::box('ftyp', 'qt  ') . self::box('mdat', 'mmmm'), 'unfinished'],
            'a movie that ends too early' => ['a.mov', substr(self::movie(), 0, -20), 'unfinished'],
            'a box that claims four gigabytes' => ['a.mov', pack('N', 0xfffffff0) . 'mdat', 'unfinished'],
            'a box of no length at all' => ['a.mov', pack('N', 3) . 'mdat', 'unfinished'],
            'a box whose 64-bit length runs over' => ['a.mov', pack('N', 1) . 'mdat' . pack('J', PHP_INT_MAX), 'unfinished'],
            'a recording that was cut off' => ['a.wav', substr(WavBuilder::pcm(1000)->bytes(), 0, 900), 'unfinished'],
            'a recording without its head' => ['a.wav', 'no wav', 'unfinished'],
            'a line break in a name' => ["a\nb.txt", 'x', 'name'],
            'a question mark in a name' => ['what?.txt', 'x', 'name'],
            'a name that ends with a dot' => ['end.', 'x', 'name'],
            'a device word as a name' => ['AUX.txt', 'x', 'name'],
        ];
    }

    #[DataProvider('trouble')]
    public function test_what_will_give_trouble_is_told_before_anything_is_copied(string $name, string $content, string $kind): void
    {
        $this->file($name, $content);
        self::assertSame([$kind], $this->kinds());
    }

    public function test_names_that_other_systems_take_for_one_are_told(): void
    {
        $this->file('ROLL/Take.txt', 'x');
        $this->file('ROLL/TAKE.txt', 'x');
        $this->file("ROLL/caf\u{E9}.txt", 'x');
        $this->file("ROLL/cafe\u{301}.txt", 'x');
        self::assertSame(['twin', 'twin'], $this->kinds());
    }

    public function test_names_of_folders_are_looked_at_like_those_of_files(): void
    {
        $this->file("ROLL\n1/a.txt", 'x');
        $this->file('DAY "1"/b.txt', 'x');
        $this->file('Card/c.txt', 'x');
        $this->file('CARD/d.txt', 'x');
        $this->file("\u{1}x/e.txt", 'x');
        $problems = $this->look()->problems;
        self::assertEqualsCanonicalizing(
            ['name', 'name', 'name', 'twin'],
            array_column(array_filter($problems, static fn(array $one): bool => str_starts_with($one['text'], 'The folder ')), 'kind'),
        );
    }

    public function test_refused_metadata_is_not_a_recording_that_was_not_closed(): void
    {
        WavBuilder::pcm(100)
            ->with('iXML', '<!DOCTYPE x [<!ENTITY e "1">]><BWFXML><SCENE>&e;</SCENE></BWFXML>')
            ->write($this->folder . '/a.wav');
        WavBuilder::pcm(100, 1, 8)->write($this->folder . '/b.wav');
        $problems = $this->look()->problems;
        self::assertSame(['metadata'], array_column($problems, 'kind'), 'and a coding that others read is no problem');
        self::assertStringNotContainsString('closed', $problems[0]['text']);
    }

    public function test_two_clips_of_one_name_in_different_folders_are_told(): void
    {
        $this->file('ONE/a.mov', self::movie());
        $this->file('TWO/a.mov', self::movie());
        self::assertSame(['twice'], $this->kinds());
    }

    public function test_links_are_told_and_not_followed(): void
    {
        symlink('/etc', $this->folder . '/out');
        $survey = $this->look();
        self::assertSame([0, ['link']], [$survey->files, array_column($survey->problems, 'kind')]);
    }

    public function test_thousands_of_problems_are_counted_and_the_first_are_told(): void
    {
        for ($file = 0; $file < 200; $file++) {
            $this->file("clip$file.mov", '');
        }
        $survey = $this->look();
        self::assertSame([200, 60], [$survey->problemCount, count($survey->problems)]);
    }

    public function test_the_fingerprint_is_of_names_and_sizes_and_the_state_also_of_times(): void
    {
        $this->file('a.txt', 'one');
        touch($this->folder . '/a.txt', 1000);
        $first = $this->look();
        touch($this->folder . '/a.txt', 2000);
        $touched = $this->look();
        self::assertSame($first->fingerprint, $touched->fingerprint);
        self::assertNotSame($first->state, $touched->state);
        self::assertSame($touched->state, Survey::stateOf($this->folder));
        $this->file('a.txt', 'longer');
        self::assertNotSame($first->fingerprint, $this->look()->fingerprint);
    }
}
