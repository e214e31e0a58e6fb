<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Models\Card;
use App\Models\CardRelease;
use App\Models\Task;
use Cartella\Core\Process;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\MakesMedia;
use Tests\App\TestCase;

/** A card may be wiped only after both of its copies were looked at, as they lie on their disks at that moment. */
final class ReleaseTest extends TestCase
{
    use MakesMedia;

    private function card(): Card
    {
        $this->plain('A001/ROLL/one.mov', random_bytes(5000));
        $this->plain('A001/two.txt', 'two');
        $this->as()
            ->postJson($this->onDay('volumes/A001/offload'), ['roll' => 'A001', 'device' => 'A'])
            ->assertStatus(202);

        return Card::query()->sole();
    }

    private function release(Card $card, ?string $words = 'one disk'): TestResponse
    {
        return $this->postJson($this->at("cards/$card->ulid/release"), $words === null ? [] : ['words' => $words]);
    }

    private function copy(string $store): string
    {
        return "$this->folder/$store/{$this->production->name}/Day 01/A/A001";
    }

    public function test_both_copies_on_one_disk_are_told_plainly_and_released_only_with_words_that_go_into_the_record(): void
    {
        $card = $this->card();
        $this->getJson($this->onDay('cards'))->assertJsonPath('cards.0.is_safe', true)->assertJsonPath('cards.0.is_one_disk', true);
        foreach ([null, 'yes', 'ONE  DISK'] as $words) {
            $this->release($card, $words)->assertStatus(422)->assertJsonPath('code', 'card.one_disk');
        }
        self::assertSame(0, CardRelease::query()->count());
        $this->release($card, ' One disk ')->assertOk();
        $evidence = CardRelease::query()->sole()->evidence;
        self::assertSame([true, 'One disk'], [$evidence['one_disk'], $evidence['words']]);
        self::assertSame('card.released', DB::table('audit')->latest('id')->value('what'));
    }

    public function test_copies_on_two_devices_are_released_without_a_word(): void
    {
        mkdir($this->folder . '/disk');
        if (Process::run(['mount', '-t', 'tmpfs', '-o', 'size=64m', 'tmpfs', $this->folder . '/disk'])['status'] !== 0) {
            self::markTestSkipped('A second disk can only be made by root.');
        }
        try {
            $this->storeAt('two', $this->folder . '/disk');
            config(['cartella.floor_bytes' => 0]);
            $card = $this->card();
            $this->getJson($this->onDay('cards'))->assertJsonPath('cards.0.is_one_disk', false);
            $this->release($card, null)->assertOk();
            $copies = CardRelease::query()->sole()->evidence['copies'];
            self::assertNotSame($copies[0]['device'], $copies[1]['device']);
            self::assertSame([2, 2], array_column($copies, 'files'));
        } finally {
            Process::run(['umount', $this->folder . '/disk']);
        }
    }

    /** @return array<string, array{callable(string): mixed, string}> what happens to a copy, and what is said of it */
    public static function losses(): array
    {
        return [
            'a file is gone' => [static fn(string $copy) => unlink("$copy/two.txt"), 'It is not there.'],
            'a file is shorter' => [
                static fn(string $copy) => file_put_contents("$copy/ROLL/one.mov", 'short'),
                'It has 5 bytes instead of 5000.',
            ],
            'a byte is another, with the same size and time' => [
                static function (string $copy): void {
                    $time = (int) filemtime("$copy/two.txt");
                    file_put_contents("$copy/two.txt", 'tWo');
                    touch("$copy/two.txt", $time);
                },
                'What the medium holds is not what was copied.',
            ],
            'a file became a link' => [
                static function (string $copy): void {
                    unlink("$copy/two.txt");
                    symlink('/etc/hostname', "$copy/two.txt");
                },
                'It is not a file any more.',
            ],
        ];
    }

    /** @param  callable(string): mixed  $lose */
    #[\PHPUnit\Framework\Attributes\DataProvider('losses')]
    public function test_a_copy_that_lost_something_since_it_was_verified_refuses_the_release(callable $lose, string $why): void
    {
        $card = $this->card();
        $lose($this->copy('two'));
        $this->release($card)->assertOk()->assertJsonPath('released_at', null);
        $task = Task::query()->where('kind', 'release')->sole();
        self::assertSame('failed', $task->state);
        self::assertStringContainsString($why, $task->result['message']);
        self::assertSame(0, CardRelease::query()->count());
        $this->getJson($this->at("cards/$card->ulid"))->assertJsonPath('is_safe', false);
    }

    public function test_a_missing_manifest_refuses_at_once(): void
    {
        $card = $this->card();
        foreach (glob($this->copy('one') . '/ascmhl/0*.mhl') ?: [] as $manifest) {
            unlink($manifest);
        }
        $this->release($card)->assertStatus(422)->assertJsonPath('code', 'card.copy_away');
    }

    public function test_a_manifest_that_was_written_over_refuses_with_its_name(): void
    {
        $card = $this->card();
        $manifest = glob($this->copy('one') . '/ascmhl/0*.mhl')[0];
        file_put_contents($manifest, str_replace('A001', 'A002', (string) file_get_contents($manifest)) . ' ');
        $this->release($card)->assertOk()->assertJsonPath('released_at', null);
        self::assertStringContainsString(basename($manifest), Task::query()->where('kind', 'release')->sole()->result['message']);
    }

    public function test_another_volume_in_the_place_of_one_is_not_taken_for_it(): void
    {
        $card = $this->card();
        rename($this->folder . '/two', $this->folder . '/pulled');
        mkdir($this->folder . '/two');
        $this->release($card)->assertStatus(422)->assertJsonPath('code', 'card.copy_away');
        $this->plain('B001/one.txt', 'one');
        $this->postJson($this->onDay('volumes/B001/offload'), ['roll' => 'B001', 'device' => 'B'])->assertStatus(202);
        self::assertSame(
            [],
            array_diff(scandir($this->folder . '/two') ?: [], ['.', '..']),
            'nothing is written below the path of a volume that is not mounted',
        );
    }

    public function test_the_record_says_what_was_looked_at_and_whether_it_came_from_the_medium(): void
    {
        $card = $this->card();
        $this->release($card)->assertOk();
        $copy = CardRelease::query()->sole()->evidence['copies'][0];
        self::assertSame([1, 2, 5003], [$copy['manifests'], $copy['files'], $copy['size_bytes']]);
        self::assertEqualsCanonicalizing(['ROLL/one.mov', 'two.txt'], array_column($copy['sample'], 'path'));
        self::assertContains($copy['sample'][0]['from'], ['medium', 'cache']);
        self::assertContains($copy['read_from'], ['medium', 'cache']);
    }

    public function test_a_card_whose_own_seal_was_broken_is_never_safe(): void
    {
        $this->plain('A001/one.mov', 'altered');
        $this->plain(
            'A001/seal.mhl',
            '<hashlist version="1.1"><hash><file>one.mov</file><size>7</size><md5>' .
                md5('picture') .
                '</md5><hashdate>2026-10-05T10:00:01Z</hashdate></hash></hashlist>',
        );
        $this->as()
            ->postJson($this->onDay('volumes/A001/offload'), ['roll' => 'A001', 'device' => 'A'])
            ->assertStatus(202);
        $card = Card::query()->sole();
        self::assertSame(['fault', 'one.mov'], [$card->state, $card->faults[0]['path']]);
        $this->release($card)->assertStatus(422)->assertJsonPath('code', 'card.unsafe');
    }
}
