<?php

declare(strict_types=1);

namespace Cartella\Core\Tests\Media;

use Cartella\Core\Media\Exception\UnableToReadMedia;
use Cartella\Core\Media\Probe;
use Cartella\Core\Media\WavReader;
use Cartella\Core\Tests\Support\Folder;
use Cartella\Core\Tests\Support\WavBuilder;
use Cartella\Core\Time\Ticks;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class WavReaderTest extends TestCase
{
    use Folder;

    /** @return array<string, array{string}> */
    public static function wideForms(): array
    {
        return ['RF64' => ['RF64'], 'BW64' => ['BW64']];
    }

    #[DataProvider('wideForms')]
    public function test_a_wide_file_takes_its_sizes_from_ds64(string $form): void
    {
        $wav = WavReader::read(
            WavBuilder::pcm(4800, 2)
                ->withBext(480_000)
                ->asRf64($form)
                ->write($this->folder . '/wide.wav'),
        );
        self::assertSame(4800, $wav->frames());
        self::assertSame(480_000, $wav->bext['time_reference']);
        self::assertSame([], $wav->problems);
    }

    public function test_a_chunk_of_odd_length_does_not_shift_what_follows(): void
    {
        $wav = WavReader::read(
            WavBuilder::pcm(100)
                ->with('junk', 'odd')
                ->withIxml('<SCENE>12A</SCENE><TAKE>3</TAKE>')
                ->write($this->folder . '/odd.wav'),
        );
        self::assertSame('12A', $wav->ixml?->scene);
        self::assertSame(100, $wav->frames());
    }

    public function test_a_cut_off_file_is_read_as_far_as_it_goes_and_says_where_it_ends(): void
    {
        $bytes = WavBuilder::pcm(1000, 1, 24)->withBext(48_000)->bytes();
        $wav = WavReader::read($this->file('cut.wav', substr($bytes, 0, -1001)));
        self::assertSame(intdiv(3000 - 1001, 3), $wav->frames());
        self::assertStringContainsString('"data" at byte', $wav->problems[0]);
        self::assertStringContainsString('claims 3000 bytes', $wav->problems[0]);
    }

    public function test_a_size_that_the_file_cannot_have_is_not_believed(): void
    {
        $wav = WavReader::read(
            WavBuilder::pcm(10)
                ->claimingDataBytes(0x7ffffff0)
                ->write($this->folder . '/liar.wav'),
        );
        self::assertSame(10, $wav->frames());
        self::assertNotSame([], $wav->problems);
    }

    /** @return array<string, array{string}> */
    public static function hostileXml(): array
    {
        return [
            'an external entity' => [
                '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]><BWFXML><SCENE>&e;</SCENE></BWFXML>',
            ],
            'entities that grow' => [
                '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b ' .
                '"&a;&a;&a;&a;&a;">]><BWFXML><SCENE>&b;</SCENE></BWFXML>',
            ],
            'a document type alone' => ['<!DOCTYPE BWFXML><BWFXML><SCENE>1</SCENE></BWFXML>'],
            'in sixteen bits' => [
                "\xFF\xFE" .
                mb_convert_encoding(
                    '<?xml version="1.0" encoding="UTF-16"?><!DOCTYPE x [<!ENTITY e "1">]><BWFXML><SCENE>&e;</SCENE></BWFXML>',
                    'UTF-16LE',
                    'UTF-8',
                ),
            ],
        ];
    }

    #[DataProvider('hostileXml')]
    public function test_hostile_xml_is_refused_and_the_sound_is_still_read(string $xml): void
    {
        $wav = WavReader::read(
            WavBuilder::pcm(48)
                ->with('iXML', $xml)
                ->write($this->folder . '/hostile.wav'),
        );
        self::assertNull($wav->ixml);
        self::assertSame(48, $wav->frames());
        self::assertStringContainsString('entities', $wav->problems[0]);
    }

    public function test_xml_that_is_none_is_a_problem_and_not_an_end(): void
    {
        $wav = WavReader::read(
            WavBuilder::pcm(48)
                ->with('iXML', '<BWFXML><SCENE>3')
                ->write($this->folder . '/broken.wav'),
        );
        self::assertNull($wav->ixml);
        self::assertStringContainsString('well-formed', $wav->problems[0]);
    }

    public function test_every_field_of_a_recorder_comes_through_the_probe(): void
    {
        $ixml =
            '<PROJECT>Low Water</PROJECT><SCENE>12A</SCENE><TAKE>3</TAKE><TAPE>S001</TAPE><NOTE>boom in ' .
            'shot</NOTE><CIRCLED>TRUE</CIRCLED><WILD_TRACK>FALSE</WILD_TRACK>' .
            '<SPEED><TIMECODE_RATE>30000/1001</TIMECODE_RATE><TIMECODE_FLAG>DF</TIMECODE_FLAG></SPEED>' .
            '<TRACK_LIST><TRACK><CHANNEL_INDEX>1</CHANNEL_INDEX><INTERLEAVE_INDEX>2</INTERLEAVE_INDEX><NAME>' .
            'boom</NAME></TRACK><TRACK><CHANNEL_INDEX>2</CHANNEL_INDEX><INTERLEAVE_INDEX>1</INTERLEAVE_INDEX>' .
            '<NAME>lav</NAME></TRACK></TRACK_LIST>' .
            '<SYNC_POINT_LIST><SYNC_POINT><SYNC_POINT_TYPE>RELATIVE</SYNC_POINT_TYPE><SYNC_POINT_LOW>' .
            '48000</SYNC_POINT_LOW><SYNC_POINT_HIGH>0</SYNC_POINT_HIGH></SYNC_POINT></SYNC_POINT_LIST>';
        $info = Probe::file(
            WavBuilder::pcm(96_000, 2)
                ->withBext(48_000 * 3600)
                ->withIxml($ixml)
                ->write($this->folder . '/12A-3.wav'),
        )->toArray();
        self::assertSame('sound', $info['kind']);
        self::assertSame(2 * Ticks::PER_SECOND, $info['duration_ticks']);
        self::assertSame(3600 * Ticks::PER_SECOND, $info['start_ticks']);
        self::assertSame('29.97df', $info['rate']);
        self::assertSame('01:00:00;00', $info['start_timecode'], 'an hour of real time is an hour of drop-frame labels');
        self::assertSame('bext', $info['start_source']);
        self::assertSame('2026-10-05T09:12:10', $info['created_at']);
        self::assertSame(['lav', 'boom'], array_column($info['channels'], 'name'), 'names follow the interleave, not the list');
        self::assertSame(
            ['12A', '3', 'S001', true, 'boom in shot'],
            [$info['scene'], $info['take'], $info['tape'], $info['circled'], $info['note']],
        );
        self::assertSame(Ticks::PER_SECOND, $info['sync_points'][0]['ticks']);
    }

    public function test_what_the_file_does_not_say_is_null(): void
    {
        $info = Probe::file(WavBuilder::pcm(48)->write($this->folder . '/plain.wav'))->toArray();
        foreach (
            [
                'rate',
                'start_ticks',
                'start_timecode',
                'start_source',
                'created_at',
                'scene',
                'take',
                'tape',
                'circled',
                'note',
                'bext',
                'ixml',
            ]
            as $field
        ) {
            self::assertNull($info[$field], $field);
        }
    }

    public function test_text_that_is_not_utf8_is_read_as_field_devices_write_it(): void
    {
        $wav = WavReader::read(
            WavBuilder::pcm(48)
                ->with('iXML', "<BWFXML><NOTE>caf\xE9</NOTE></BWFXML>")
                ->write($this->folder . '/latin.wav'),
        );
        self::assertSame('café', $wav->ixml?->note);
    }

    public function test_loudness_of_the_second_version_is_told_as_far_as_it_was_measured(): void
    {
        $bext = pack('a256a32a32a10a8P', 'described', 'Recorder', 'REF', '2026-10-05', '09:12:10', 48_000) . pack('v', 2);
        $bext .= str_repeat("\0", 64) . pack('v5', -2310 & 0xffff, 710, -105 & 0xffff, 0x7fff, -1820 & 0xffff) . str_repeat("\0", 180);
        $file = WavBuilder::pcm(100, 1, 16, 48_000)
            ->with('bext', $bext)
            ->write("$this->folder/loud.wav");
        $told = Probe::file($file)->bext ?? [];
        self::assertSame(
            [-23.1, 7.1, -1.05, -18.2],
            [$told['loudness_value'], $told['loudness_range'], $told['max_true_peak'], $told['max_short_term']],
        );
        self::assertArrayNotHasKey('max_momentary', $told);
    }

    public function test_a_file_that_ends_before_its_samples_still_says_when_it_began(): void
    {
        $bytes = WavBuilder::pcm(100, 1, 16, 48_000)
            ->withBext(48_000 * 3600)
            ->bytes();
        $file = $this->file('cut.wav', substr($bytes, 0, (int) strpos($bytes, 'data')));
        $info = Probe::file($file);
        self::assertSame([3600 * Ticks::PER_SECOND, 0, 'bext'], [$info->startTicks, $info->durationTicks, $info->startSource]);
        self::assertStringContainsString('no samples', implode(' ', $info->problems));
    }

    public function test_markers_come_with_their_labels(): void
    {
        $cue = pack('V', 1) . pack('VVa4VVV', 7, 0, 'data', 0, 0, 24_000);
        $list = 'adtl' . 'labl' . pack('V', 4 + 5) . pack('V', 7) . "door\0" . "\0";
        $info = Probe::file(
            WavBuilder::pcm(48_000)
                ->with('cue ', $cue)
                ->with('LIST', $list)
                ->write($this->folder . '/cue.wav'),
        );
        self::assertSame([['ticks' => intdiv(Ticks::PER_SECOND, 2), 'name' => 'door', 'duration_ticks' => null]], $info->markers);
    }

    public function test_what_is_no_wav_is_named_by_what_it_begins_with(): void
    {
        $this->expectException(UnableToReadMedia::class);
        $this->expectExceptionMessage('"Post"');
        WavReader::read($this->file('letter.wav', 'Postscript and some more text'));
    }

    public function test_an_empty_and_an_unknown_file_are_still_catalogued(): void
    {
        self::assertSame(
            ['other', ['The file is empty.']],
            [Probe::file($this->file('none.mov', ''))->kind, Probe::file($this->file('none.mov', ''))->problems],
        );
        $text = Probe::file($this->file('report.txt', str_repeat("ROLL A001\n", 50)));
        self::assertSame('other', $text->kind);
        self::assertNotSame([], $text->problems);
    }
}
