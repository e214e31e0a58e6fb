<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Custody;

use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Custody\ManifestEntry;
use Cartella\Core\Custody\Offload;
use Cartella\Core\Custody\OffloadReport;
use Cartella\Core\Custody\Verify;
use Cartella\Core\Tests\Support\Folder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A card that was sealed by somebody before it came here, and changed since. */
final class BroughtHashesTest extends TestCase
{
    use Folder;

    private function offload(): OffloadReport
    {
        @mkdir($this->folder . '/one');

        return Offload::run($this->folder . '/card', [$this->folder . '/one'], resume: true);
    }

    private function seal(string $folder, string $path, HashAlgorithm $algorithm, ?string $content = null, int $at = 1_790_000_000): void
    {
        $content ??= (string) file_get_contents("$folder/$path");
        Manifest::write(
            $folder,
            [new ManifestEntry($path, strlen($content), 1_790_000_000, $algorithm, $algorithm->of($content), 'original', $at)],
            'in-place',
            HashAlgorithm::Xxh128,
            $at,
        );
    }

    /** @return array<string, array{HashAlgorithm}> */
    public static function algorithms(): array
    {
        return array_combine(
            array_column(HashAlgorithm::cases(), 'value'),
            array_map(static fn(HashAlgorithm $one): array => [$one], HashAlgorithm::cases()),
        );
    }

    #[DataProvider('algorithms')]
    public function test_one_altered_byte_on_a_sealed_card_is_a_fault_and_never_a_copy(HashAlgorithm $algorithm): void
    {
        $this->file('card/CLIPS/a.mov', 'picture');
        $this->file('card/CLIPS/b.mov', 'another');
        $this->seal($this->folder . '/card', 'CLIPS/a.mov', $algorithm);
        $whole = $this->offload();
        self::assertSame([2, 1, []], [$whole->verified, $whole->matched, $whole->faults]);
        self::assertTrue(Verify::folder($this->folder . '/one/card')['ok']);
        self::remove($this->folder . '/one');
        $this->file('card/CLIPS/a.mov', 'Picture');
        $report = $this->offload();
        self::assertSame([1, 0, ['CLIPS/a.mov']], [$report->verified, $report->matched, array_column($report->faults, 'path')]);
        self::assertStringContainsString(strtoupper($algorithm->value), $report->faults[0]['reason']);
        self::assertFileDoesNotExist($this->folder . '/one/card/CLIPS/a.mov');
        self::assertSame(
            ['CLIPS/b.mov'],
            array_map(static fn(ManifestEntry $entry): string => $entry->path, Manifest::read($report->manifests[0])),
        );
    }

    public function test_a_list_of_others_holds_too_however_deep_it_lies(): void
    {
        $this->file('card/ROLL/DAY/a.mov', 'altered');
        $this->file(
            'card/ROLL/DAY/seal.mhl',
            '<hashlist version="1.1"><hash><file>a.mov</file><size>7</size><md5>' .
                md5('picture') .
                '</md5><hashdate>2026-10-05T10:00:01Z</hashdate></hash></hashlist>',
        );
        self::assertSame(['ROLL/DAY/a.mov'], array_column($this->offload()->faults, 'path'));
    }

    public function test_a_history_further_down_holds_for_what_lies_beside_it(): void
    {
        $this->file('card/ROLL/a.mov', 'altered');
        $this->seal($this->folder . '/card/ROLL', 'a.mov', HashAlgorithm::Sha1, 'picture');
        $report = $this->offload();
        self::assertSame(['ROLL/a.mov'], array_column($report->faults, 'path'));
        self::assertStringContainsString('ROLL/ascmhl/0001', $report->faults[0]['reason']);
    }

    public function test_the_newest_checksum_counts_among_several(): void
    {
        $this->file('card/a.mov', 'new cut');
        $this->seal($this->folder . '/card', 'a.mov', HashAlgorithm::Md5, 'old cut', 1_790_000_000);
        $this->seal($this->folder . '/card', 'a.mov', HashAlgorithm::Md5, 'new cut', 1_790_000_100);
        self::assertSame([1, []], [$this->offload()->matched, $this->offload()->faults]);
    }

    public function test_a_seal_that_was_written_over_is_a_fault_itself(): void
    {
        $this->file('card/a.mov', 'altered');
        $this->seal($this->folder . '/card', 'a.mov', HashAlgorithm::Md5, 'picture');
        $seal = glob($this->folder . '/card/ascmhl/0001*.mhl')[0];
        file_put_contents($seal, str_replace(md5('picture'), md5('altered'), (string) file_get_contents($seal)));
        self::assertStringContainsString('0001', implode(' ', array_column($this->offload()->faults, 'path')));
    }

    public function test_what_lies_in_the_folder_of_the_history_is_copied_and_a_stranger_among_its_manifests_is_told(): void
    {
        $this->file('card/a.mov', 'picture');
        $this->seal($this->folder . '/card', 'a.mov', HashAlgorithm::Md5);
        $this->file('card/ascmhl/note from set.txt', 'keep me');
        $this->file('card/ascmhl/0007_stranger.mhl', '<hashlist/>');
        $report = $this->offload();
        self::assertSame(['ascmhl/0007_stranger.mhl'], array_column($report->faults, 'path'));
        self::assertFileEquals($this->folder . '/card/ascmhl/note from set.txt', $this->folder . '/one/card/ascmhl/note from set.txt');
        self::assertSame(2, $report->verified);
        self::assertTrue(Verify::folder($this->folder . '/one/card')['ok']);
    }
}
