<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Custody;

use Cartella\Core\Custody\Exception\UnableToVerify;
use Cartella\Core\Custody\Offload;
use Cartella\Core\Custody\Verify;
use Cartella\Core\Tests\Support\Folder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LegacyManifestTest extends TestCase
{
    use Folder;

    private function list(string $hash, string $path = 'CLIPS/a.mov', string $version = '1.1'): void
    {
        $this->file('CLIPS/a.mov', 'picture');
        $this->file(
            'other_2026-10-05.mhl',
            "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<hashlist version=\"$version\">" .
                '<creatorinfo><name>Somebody</name><tool>another tool</tool></creatorinfo>' .
                "<hash><file>$path</file><size>7</size><lastmodificationdate>2026-10-05T10:00:00Z</lastmodificationdate>" .
                "$hash<hashdate>2026-10-05T10:00:01Z</hashdate></hash></hashlist>",
        );
    }

    /** @return array<string, array{string}> */
    public static function checksums(): array
    {
        $long = hash('xxh64', 'picture');

        return [
            'MD5' => ['<md5>' . strtoupper(md5('picture')) . '</md5>'],
            'SHA-1' => ['<sha1>' . sha1('picture') . '</sha1>'],
            'XXH64, high byte first' => ["<xxhash64be>$long</xxhash64be>"],
            'XXH64, low byte first' => ['<xxhash64>' . bin2hex(strrev((string) hex2bin($long))) . '</xxhash64>'],
            'XXH32 in decimal' => ['<xxhash>' . hexdec(hash('xxh32', 'picture')) . '</xxhash>'],
        ];
    }

    #[DataProvider('checksums')]
    public function test_a_list_of_others_is_checked_by_whichever_checksum_it_carries(string $hash): void
    {
        $this->list($hash);
        self::assertTrue(Verify::folder($this->folder)['ok']);
        $this->file('CLIPS/a.mov', 'another');
        self::assertSame(['CLIPS/a.mov'], Verify::folder($this->folder)['altered']);
    }

    public function test_a_recorded_check_of_such_a_folder_begins_a_history(): void
    {
        $this->list('<md5>' . md5('picture') . '</md5>');
        self::assertTrue(Verify::folder($this->folder, true)['ok']);
        self::assertFileExists($this->folder . '/ascmhl/ascmhl_chain.xml');
        unlink($this->folder . '/CLIPS/a.mov');
        self::assertSame(['CLIPS/a.mov'], Verify::folder($this->folder)['missing']);
    }

    public function test_a_list_that_came_with_a_card_is_heard_whenever_its_copy_is_checked(): void
    {
        $this->list('<md5>' . md5('picture') . '</md5>');
        Offload::run($this->folder . '/CLIPS', [$this->folder . '/x']);
        $copy = $this->folder . '/x/CLIPS';
        foreach (['picture' => true, 'another' => false] as $content => $isSame) {
            file_put_contents(
                $copy . '/from others.mhl',
                '<hashlist version="1.1"><hash><file>a.mov</file><size>7</size><md5>' . md5($content) . '</md5></hash></hashlist>',
            );
            $problems = implode(' ', Verify::folder($copy)['problems']);
            self::assertSame($isSame, $problems === '', $problems);
        }
    }

    public function test_a_path_out_of_the_folder_is_not_followed(): void
    {
        $this->list('<md5>' . md5('picture') . '</md5>', '..\\..\\etc\\passwd');
        self::assertStringContainsString('outside the folder', implode(' ', Verify::folder($this->folder)['problems']));
    }

    public function test_a_list_of_another_kind_is_refused(): void
    {
        $this->list('<md5>x</md5>', version: '3.0');
        $this->expectException(UnableToVerify::class);
        Verify::folder($this->folder);
    }
}
