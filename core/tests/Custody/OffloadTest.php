<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Custody;

use Cartella\Core\Custody\C4;
use Cartella\Core\Custody\Exception\InvalidCustody;
use Cartella\Core\Custody\Exception\UnableToVerify;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\Internal\ReadBack;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Custody\Offload;
use Cartella\Core\Custody\OffloadProgress;
use Cartella\Core\Custody\Verify;
use Cartella\Core\Tests\Support\Folder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class OffloadTest extends TestCase
{
    use Folder;

    /** @return list<string> */
    private function card(): array
    {
        $this->file('card/A001/ROLL/A001C001.mov', str_repeat('picture', 200_000));
        $this->file('card/A001/ROLL/A001C002.mov', random_bytes(70_000));
        $this->file('card/A001/REPORT.TXT', "ROLL A001\r\n");
        $this->file('card/A001/empty.log', '');
        mkdir($this->folder . '/one');
        mkdir($this->folder . '/two');

        return [$this->folder . '/one', $this->folder . '/two'];
    }

    private function source(): string
    {
        return $this->folder . '/card/A001';
    }

    public function test_every_byte_arrives_at_every_destination_and_the_card_is_untouched(): void
    {
        $destinations = $this->card();
        $before = $this->listing($this->source());
        $report = Offload::run($this->source(), $destinations);
        self::assertSame([4, 4, []], [$report->files, $report->verified, $report->faults]);
        self::assertSame($before, $this->listing($this->source()));
        foreach ($destinations as $destination) {
            self::assertSame(
                $before,
                array_filter(
                    $this->listing($destination . '/A001'),
                    static fn(string $path): bool => !str_starts_with($path, 'ascmhl'),
                    ARRAY_FILTER_USE_KEY,
                ),
            );
            self::assertSame(
                ['ok' => true, 'missing' => [], 'altered' => [], 'new' => [], 'renamed' => [], 'problems' => []],
                Verify::folder($destination . '/A001'),
            );
        }
    }

    public function test_the_manifest_carries_the_checksum_of_the_recording_itself(): void
    {
        $destinations = $this->card();
        $report = Offload::run($this->source(), $destinations, HashAlgorithm::Md5);
        $entries = array_column(
            array_map(static fn($entry): array => [$entry->path, $entry->hash], Manifest::read($report->manifests[0])),
            1,
            0,
        );
        self::assertSame(md5_file($this->source() . '/ROLL/A001C002.mov'), $entries['ROLL/A001C002.mov']);
        self::assertMatchesRegularExpression('/\A0001_A001_\d{4}-\d{2}-\d{2}_\d{6}Z\.mhl\z/', basename($report->manifests[0]));
    }

    public function test_a_run_that_was_stopped_goes_on_with_what_is_not_verified_yet(): void
    {
        $destinations = $this->card();
        $stopped = false;
        try {
            Offload::run(
                $this->source(),
                $destinations,
                onProgress: static function (OffloadProgress $at) use (&$stopped): void {
                    if ($at->path === 'ROLL/A001C002.mov' && $at->step === 'reading back') {
                        $stopped = true;
                        throw new \RuntimeException('pulled');
                    }
                },
            );
        } catch (\RuntimeException) {
        }
        self::assertTrue($stopped);
        self::assertFileDoesNotExist($destinations[0] . '/A001/ROLL/A001C002.mov');
        $inode = fileinode($destinations[0] . '/A001/ROLL/A001C001.mov');
        $copied = [];
        $report = Offload::run(
            $this->source(),
            $destinations,
            resume: true,
            onProgress: static function (OffloadProgress $at) use (&$copied): void {
                if ($at->step === 'copying') {
                    $copied[$at->path] = true;
                }
            },
        );
        self::assertSame(4, $report->verified);
        self::assertSame($inode, fileinode($destinations[0] . '/A001/ROLL/A001C001.mov'), 'what was verified is not written again');
        self::assertArrayNotHasKey('ROLL/A001C001.mov', $copied);
        self::assertSame(
            [basename($report->manifests[0]), 'ascmhl_chain.xml'],
            array_values(array_diff(scandir($destinations[0] . '/A001/ascmhl') ?: [], ['.', '..'])),
            'nothing of the stopped run is left',
        );
    }

    public function test_another_file_in_the_way_is_a_fault_and_is_never_overwritten(): void
    {
        $destinations = $this->card();
        $this->file('one/A001/ROLL/A001C002.mov', 'somebody else');
        $report = Offload::run($this->source(), $destinations);
        self::assertSame('somebody else', file_get_contents($destinations[0] . '/A001/ROLL/A001C002.mov'));
        self::assertSame(['ROLL/A001C002.mov'], array_column($report->faults, 'path'));
        self::assertSame(3, $report->verified);
        self::assertFileEquals(
            $this->source() . '/ROLL/A001C002.mov',
            $destinations[1] . '/A001/ROLL/A001C002.mov',
            'the other destination still gets it',
        );
    }

    public function test_a_file_that_changes_while_it_is_copied_is_a_fault_without_a_copy(): void
    {
        $destinations = $this->card();
        $report = Offload::run(
            $this->source(),
            $destinations,
            onProgress: function (OffloadProgress $at): void {
                if ($at->path === 'ROLL/A001C002.mov' && $at->step === 'copying') {
                    file_put_contents($this->source() . '/' . $at->path, 'more', FILE_APPEND);
                }
            },
        );
        self::assertSame('It changed while it was being copied.', $report->faults[0]['reason']);
        self::assertFileDoesNotExist($destinations[0] . '/A001/ROLL/A001C002.mov');
        self::assertSame(3, $report->verified);
    }

    public function test_a_file_that_is_rewritten_while_it_is_copied_is_told_though_its_size_and_second_are_the_same(): void
    {
        $destinations = $this->card();
        $file = $this->source() . '/ROLL/A001C002.mov';
        $second = (int) filemtime($file);
        $report = Offload::run(
            $this->source(),
            $destinations,
            onProgress: static function (OffloadProgress $at) use ($file, $second): void {
                if ($at->path === 'ROLL/A001C002.mov' && $at->step === 'copying') {
                    file_put_contents($file, random_bytes(70_000));
                    touch($file, $second);
                }
            },
        );
        self::assertSame(['ROLL/A001C002.mov'], array_column($report->faults, 'path'));
        self::assertFileDoesNotExist($destinations[0] . '/A001/ROLL/A001C002.mov');
    }

    public function test_a_resumed_run_copies_again_what_was_rewritten_in_the_same_second(): void
    {
        $destinations = $this->card();
        $file = $this->source() . '/ROLL/A001C002.mov';
        touch($file, 1_790_000_000);
        try {
            Offload::run(
                $this->source(),
                $destinations,
                onProgress: static function (OffloadProgress $at): void {
                    // Everything is verified by then, and the run is stopped before it writes its manifest.
                    if ($at->files === 4) {
                        throw new \RuntimeException('stopped');
                    }
                },
            );
        } catch (\RuntimeException) {
        }
        file_put_contents($file, random_bytes(70_000));
        // The same second, another moment in it: PHP's touch knows whole seconds only.
        (new \Symfony\Component\Process\Process(['touch', '-d', '@1790000000.5', $file]))->mustRun();
        $report = Offload::run($this->source(), $destinations, resume: true);
        self::assertSame(
            ['ROLL/A001C002.mov', 'ROLL/A001C002.mov'],
            array_column($report->faults, 'path'),
            'the older copy is in the way, at both',
        );
    }

    public function test_a_copy_is_read_back_from_the_medium_and_the_report_says_so(): void
    {
        [$destination] = $this->card();
        self::assertSame([$destination => 'medium'], Offload::run($this->source(), [$destination])->readFrom);
    }

    public function test_links_and_pipes_are_faults_and_are_not_followed(): void
    {
        $destinations = $this->card();
        symlink('/etc/passwd', $this->source() . '/ROLL/link.mov');
        posix_mkfifo($this->source() . '/pipe', 0600);
        $report = Offload::run($this->source(), $destinations);
        self::assertEqualsCanonicalizing(['ROLL/link.mov', 'pipe'], array_column($report->faults, 'path'));
        self::assertFileDoesNotExist($destinations[0] . '/A001/ROLL/link.mov');
        self::assertSame(4, $report->verified);
    }

    /** @return array<string, array{string}> */
    public static function hostileNames(): array
    {
        return [
            'a newline' => ["new\nline.mov"],
            'a leading dash' => ['-rf.mov'],
            '255 bytes' => [str_repeat('n', 251) . '.mov'],
            'dots' => ['..mov'],
            'markup' => ['<a>&"b".mov'],
            'a return' => ["car\rriage.mov"],
            'other scripts' => ['日本 é e' . "\u{301}" . '.mov'],
        ];
    }

    #[DataProvider('hostileNames')]
    public function test_a_hostile_name_is_copied_and_verified_like_any_other(string $name): void
    {
        mkdir($this->folder . '/one');
        $this->file('card/H001/' . $name, 'content');
        $report = Offload::run($this->folder . '/card/H001', [$this->folder . '/one']);
        self::assertSame([1, []], [$report->verified, $report->faults]);
        self::assertTrue(Verify::folder($this->folder . '/one/H001')['ok']);
    }

    public function test_a_full_destination_stops_only_itself(): void
    {
        $destinations = $this->card();
        $report = Offload::run($this->source(), [$destinations[0], '/dev/null/nowhere-to-write']);
        self::assertSame(0, $report->verified, 'verified means at every destination');
        self::assertFileEquals($this->source() . '/ROLL/A001C001.mov', $destinations[0] . '/A001/ROLL/A001C001.mov');
    }

    /** @return array<string, array{list<string>}> */
    public static function badDestinations(): array
    {
        return [
            'none' => [[]],
            'the same twice' => [['one', 'one/../one']],
            'inside the source' => [['card/A001/copy']],
            'the folder above, which would be the source itself' => [['card']],
        ];
    }

    /** @param  list<string>  $destinations */
    #[DataProvider('badDestinations')]
    public function test_destinations_that_cannot_be_are_refused_before_anything_is_written(array $destinations): void
    {
        $this->card();
        $before = $this->listing($this->source());
        try {
            Offload::run($this->source(), array_map(fn(string $path): string => $this->folder . '/' . $path, $destinations));
            self::fail('It was accepted.');
        } catch (InvalidCustody | \Throwable $refusal) {
            self::assertInstanceOf(InvalidCustody::class, $refusal);
        }
        self::assertSame($before, $this->listing($this->source()));
    }

    public function test_destinations_may_be_named_from_where_one_stands(): void
    {
        $this->card();
        $before = (string) getcwd();
        chdir($this->folder);
        try {
            self::assertSame(4, Offload::run('card/A001', ['one', 'new'])->verified);
        } finally {
            chdir($before);
        }
        self::assertTrue(Verify::folder($this->folder . '/new/A001')['ok']);
    }

    public function test_a_destination_that_disappears_stops_only_itself_and_is_not_made_up_again(): void
    {
        $destinations = $this->card();
        mkdir($this->source() . '/ZLAST');
        file_put_contents($this->source() . '/ZLAST/z.mov', 'last');
        $report = Offload::run(
            $this->source(),
            $destinations,
            onProgress: function (OffloadProgress $at) use ($destinations): void {
                if ($at->path === 'ROLL/A001C001.mov' && is_dir($destinations[0])) {
                    rename($destinations[0], $this->folder . '/pulled');
                }
            },
        );
        self::assertDirectoryDoesNotExist($destinations[0]);
        self::assertSame([$destinations[0]], array_column($report->faults, 'destination'), 'told once, for the volume');
        self::assertSame(0, $report->verified);
        self::assertTrue(Verify::folder($destinations[1] . '/A001')['ok']);
        self::assertFileExists($destinations[1] . '/A001/ZLAST/z.mov');
    }

    public function test_a_run_that_died_between_its_manifest_and_the_chain_leaves_nothing_that_nobody_vouches_for(): void
    {
        $destinations = $this->card();
        $this->file('one/A001/ascmhl/0001_A001_2026-10-05_090000Z.mhl', '<hashlist/>');
        $this->file('one/A001/ascmhl/ascmhl_chain.xml.part', 'half');
        self::assertSame([], Offload::run($this->source(), $destinations, resume: true)->faults);
        self::assertSame([], Verify::folder($destinations[0] . '/A001')['problems']);
    }

    public function test_the_history_that_a_card_brings_along_goes_on_at_its_copies(): void
    {
        $destinations = $this->card();
        Manifest::write($this->source(), [], 'in-place', HashAlgorithm::Md5, 1_700_000_000);
        Offload::run($this->source(), $destinations);
        self::assertSame(
            ['0001', '0002'],
            array_map(static fn(array $one): string => substr($one['path'], 0, 4), Manifest::chain($destinations[1] . '/A001')),
        );
        self::assertTrue(Verify::folder($destinations[1] . '/A001')['ok']);
    }

    public function test_two_offloads_never_write_the_same_folder(): void
    {
        $destinations = $this->card();
        $reasons = null;
        Offload::run(
            $this->source(),
            [$destinations[0]],
            onProgress: function () use ($destinations, &$reasons): void {
                $reasons ??= array_column(Offload::run($this->source(), [$destinations[0]], resume: true)->faults, 'reason');
            },
        );
        self::assertSame([Offload::BUSY], $reasons);
        self::assertTrue(Verify::folder($destinations[0] . '/A001')['ok']);
    }

    public function test_copied_and_verified_bytes_end_at_the_size_of_the_card(): void
    {
        $destinations = $this->card();
        $last = null;
        $report = Offload::run(
            $this->source(),
            $destinations,
            onProgress: static function (OffloadProgress $at) use (&$last): void {
                $last = clone $at;
            },
        );
        self::assertSame(
            [$report->bytes, $report->bytes, 4, [$report->bytes, $report->bytes]],
            [$last?->copiedBytes, $last?->bytes, $last?->files, $last?->verifiedBytes],
        );
    }

    public function test_reading_back_goes_on_when_its_helper_is_gone(): void
    {
        $file = $this->file('a', 'content');
        foreach ([['/nonexistent/program'], ['true']] as $command) {
            $reader = new ReadBack($command);
            $reader->ask($file, HashAlgorithm::Md5);
            self::assertSame(md5('content'), $reader->answer());
        }
    }

    public function test_verify_tells_altered_missing_new_and_renamed_apart(): void
    {
        $destinations = $this->card();
        Offload::run($this->source(), $destinations);
        $copy = $destinations[0] . '/A001';
        file_put_contents($copy . '/REPORT.TXT', 'changed');
        rename($copy . '/ROLL/A001C001.mov', $copy . '/ROLL/renamed.mov');
        unlink($copy . '/ROLL/A001C002.mov');
        file_put_contents($copy . '/stranger.txt', 'new here');
        $answer = Verify::folder($copy);
        self::assertFalse($answer['ok']);
        self::assertSame(['REPORT.TXT'], $answer['altered']);
        self::assertSame(['ROLL/A001C002.mov'], $answer['missing']);
        self::assertSame(['stranger.txt'], $answer['new']);
        self::assertSame([['from' => 'ROLL/A001C001.mov', 'to' => 'ROLL/renamed.mov']], $answer['renamed']);
    }

    public function test_a_recorded_check_adds_a_generation_that_the_chain_owns(): void
    {
        $destinations = $this->card();
        Offload::run($this->source(), $destinations);
        Verify::folder($destinations[0] . '/A001', true);
        $chain = Manifest::chain($destinations[0] . '/A001');
        self::assertCount(2, $chain);
        foreach ($chain as $generation) {
            self::assertSame(C4::ofFile($destinations[0] . '/A001/ascmhl/' . $generation['path']), $generation['c4']);
        }
        self::assertTrue(Verify::folder($destinations[0] . '/A001')['ok']);
    }

    public function test_a_manifest_that_the_chain_disowns_is_not_ok(): void
    {
        $destinations = $this->card();
        $report = Offload::run($this->source(), $destinations);
        file_put_contents($report->manifests[0], ' ', FILE_APPEND);
        self::assertFalse(Verify::folder($destinations[0] . '/A001')['ok']);
    }

    public function test_a_manifest_that_climbs_out_of_its_folder_is_not_followed(): void
    {
        $destinations = $this->card();
        $report = Offload::run($this->source(), $destinations);
        $text = (string) file_get_contents($report->manifests[0]);
        file_put_contents($report->manifests[0], str_replace('>REPORT.TXT<', '>../../secret<', $text));
        $answer = Verify::folder($destinations[0] . '/A001');
        self::assertFalse($answer['ok']);
        self::assertStringContainsString('outside the folder', implode(' ', $answer['problems']));
    }

    public function test_a_folder_without_a_manifest_cannot_be_verified(): void
    {
        $this->card();
        $this->expectException(UnableToVerify::class);
        Verify::folder($this->source());
    }

    public function test_c4_of_nothing_is_the_one_the_standard_gives(): void
    {
        self::assertSame(
            'c459dsjfscH38cYeXXYogktxf4Cd9ibshE3BHUo6a58hBXmRQdZrAkZzsWcbWtDg5oQstpDuni4Hirj75GEmTc1sFT',
            C4::encode(hash('sha512', '', true)),
        );
    }

    /** @return array<string, string> hash by relative path */
    private function listing(string $root): array
    {
        $files = [];
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($root, \FilesystemIterator::SKIP_DOTS)) as $file) {
            $files[substr($file->getPathname(), strlen($root) + 1)] =
                $file->isFile() && !$file->isLink() ? hash_file('xxh128', $file->getPathname()) . $file->getMTime() : 'other';
        }
        ksort($files);

        return $files;
    }
}
