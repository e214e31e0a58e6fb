<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Domain\Footage\Stores;
use App\Models\CardCopy;
use App\Support\Clock;
use App\Support\Problem;
use Cartella\Core\Custody\PathTemplate;
use Cartella\Core\Media\MediaNames;
use Cartella\Core\Time\FrameRate;
use Cartella\Core\Time\Ticks;
use Database\Factories\CardFactory;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

final class StoresTest extends TestCase
{
    /** @return array<string, array{string, string}> */
    public static function names(): array
    {
        return [
            'plain' => ['Low Water', 'Low Water'],
            'a slash' => ['A/B', 'A_B'],
            'climbing out' => ['../..', '_'],
            'dots at the ends' => ['..x.', 'x'],
            'control characters' => ["a\n\tb", 'a_b'],
            'other scripts stay' => ['Højvande', 'Højvande'],
            'nothing' => ['', '_'],
            'very long' => [str_repeat('x', 300), str_repeat('x', 80)],
        ];
    }

    #[DataProvider('names')]
    public function test_a_name_becomes_one_that_every_file_system_takes(string $name, string $plain): void
    {
        self::assertSame($plain, PathTemplate::plain($name));
    }

    public function test_a_file_is_found_on_the_second_volume_when_the_first_is_gone(): void
    {
        $card = CardFactory::new()
            ->roll('A001')
            ->createOne($this->ours() + []);
        foreach (['one', 'two'] as $store) {
            mkdir("$this->folder/$store/A001");
            file_put_contents("$this->folder/$store/A001/clip.mov", $store);
            CardCopy::query()->create(['card_id' => $card->id, 'store' => $store, 'path' => 'A001']);
        }
        $clip = $this->clip('clip', 'A', 0, more: ['card_id' => $card->id, 'path' => 'clip.mov']);
        $stores = new Stores();
        self::assertSame("$this->folder/one/A001/clip.mov", $stores->fileOf($clip));
        rename("$this->folder/one", "$this->folder/unplugged");
        self::assertSame("$this->folder/two/A001/clip.mov", $stores->fileOf($clip));
        self::assertNull($stores->known($this->production)['one']->freeBytes(), 'a volume that is not there has no room');
        rename("$this->folder/two", "$this->folder/also-unplugged");
        $this->expectException(Problem::class);
        $this->expectExceptionMessage('The file of clip is not here.');
        $stores->fileOf($clip);
    }

    /** @return array<string, array{string, string}> */
    public static function imports(): array
    {
        return [
            'by its folder' => ['Music/cue.wav', 'music'],
            'by another word' => ['SFX/creak.wav', 'effects'],
            'production sound' => ['Production_Sound/day 1/12-T01.wav', 'production sound'],
            'the nearest folder counts' => ['Stock/Titles/title.png', 'graphics'],
            'sound without a word' => ['new/creak.wav', 'effects'],
            'a still without a word' => ['a.png', 'stills'],
            'a picture without a word' => ['a.mov', 'stock'],
        ];
    }

    #[DataProvider('imports')]
    public function test_a_folder_that_is_brought_in_says_what_its_files_are(string $path, string $kind): void
    {
        self::assertSame($kind, MediaNames::importKind($path));
    }

    public function test_a_name_says_whether_a_file_is_media_or_rubbish(): void
    {
        self::assertSame(
            ['picture', 'sound', 'still', null, null],
            array_map(MediaNames::kindOf(...), ['A/B.MOV', 'x.Wav', 't.png', 'REPORT.TXT', 'noextension']),
        );
        self::assertSame([true, true, false], array_map(MediaNames::isJunk(...), ['ROLL/._A001.mov', '.hidden', 'ROLL/A001.mov']));
    }

    /** @return array<string, array{int, string}> frames at 25, words */
    public static function distances(): array
    {
        return [
            'frames' => [7, '7 f'],
            'seconds' => [50, '2 s'],
            'both' => [32, '1 s 7 f'],
            'backwards' => [-32, '1 s 7 f'],
            'hours' => [25 * (3600 * 10 + 60 * 5), '10 h 05 min'],
            'nothing' => [0, '0 f'],
        ];
    }

    #[DataProvider('distances')]
    public function test_how_far_two_clocks_lie_apart_is_said_in_words(int $frames, string $words): void
    {
        $rate = FrameRate::parse('25');
        self::assertSame($words, Clock::distance(Ticks::ofFrames($frames, $rate), $rate));
    }

    public function test_times_of_day_wrap_and_no_time_has_no_label(): void
    {
        self::assertSame('00:00:05', Clock::time(86_405 * Ticks::PER_SECOND));
        self::assertNull(Clock::label(null, FrameRate::parse('25')));
    }
}
