<?php

declare(strict_types=1);

namespace Tests\Fuzz;

use App\Domain\Log\ScriptNotes\NoteTable;
use Cartella\Core\Custody\BroughtHashes;
use Cartella\Core\Custody\HashAlgorithm;
use Cartella\Core\Custody\LegacyManifest;
use Cartella\Core\Custody\Manifest;
use Cartella\Core\Custody\ManifestEntry;
use Cartella\Core\Log\NoteColumns;
use Cartella\Core\Log\Script;
use Cartella\Core\Look\Cdl;
use Cartella\Core\Media\ContainerEnd;
use Cartella\Core\Media\MovieHead;
use Cartella\Core\Media\WavReader;
use Cartella\Core\Tests\Support\WavBuilder;

/** The readers of what others made, each with a good input to break. Files lie in a folder of the caller's. */
final class Targets
{
    /** @return array<string, array{string, callable(string): mixed}> the good input and its reader, by name */
    public static function all(string $folder): array
    {
        $file = static function (string $name, callable $read) use ($folder): callable {
            return static function (string $bytes) use ($folder, $name, $read): mixed {
                file_put_contents("$folder/$name", $bytes);

                return $read("$folder/$name");
            };
        };
        $table = static fn(string $path): int => self::table($path);

        return [
            'WAV' => [
                WavBuilder::pcm(200, 4)->withBext(1_440_000)->withIxml('<TAPE>S001</TAPE>')->bytes(),
                $file('a.wav', WavReader::read(...)),
            ],
            'iXML' => [
                self::IXML,
                static function (string $xml) use ($file): mixed {
                    return $file('b.wav', WavReader::read(...))(WavBuilder::pcm(10)->with('iXML', $xml)->bytes());
                },
            ],
            'MOV head' => [self::movie(), $file('a.mov', MovieHead::read(...))],
            'MXF head' => [
                "\x06\x0E\x2B\x34\x02\x05\x01\x01\x0D\x01\x02\x01\x01\x02\x04\x00\x83\x00\x00\x68" . str_repeat("\0", 200),
                $file('a.mxf', ContainerEnd::isWhole(...)),
            ],
            'transport stream' => [
                str_repeat("G\x41\x00\x30\x07\x50" . str_repeat("\0\0\1\xE0", 45) . 'xx', 40),
                $file('a.mts', ContainerEnd::isWhole(...)),
            ],
            'AVI' => [
                'RIFF' . pack('V', 40) . 'AVI ' . str_repeat('LIST' . pack('V', 4) . 'movi', 3),
                $file('a.avi', ContainerEnd::isWhole(...)),
            ],
            'MHL' => [self::manifest($folder), $file('0001_a.mhl', Manifest::read(...))],
            'MHL history' => [
                self::chain($folder),
                static function (string $chain) use ($folder): BroughtHashes {
                    file_put_contents("$folder/card/ascmhl/ascmhl_chain.xml", $chain);

                    return BroughtHashes::on("$folder/card");
                },
            ],
            'MHL 1.1' => [
                '<?xml version="1.0" encoding="UTF-8"?><hashlist ' .
                'version="1.1"><creatorinfo><name>a</name></creatorinfo><hash><file>CLIPS/a.mov</file><size>7</size><md5>' .
                md5('x') .
                '</md5><hashdate>2026-10-05T10:00:01Z</hashdate></hash></hashlist>',
                $file('old.mhl', LegacyManifest::read(...)),
            ],
            'CDL' => [Cdl::collection(['mill' => Cdl::of([1.1, 1.0, 0.9], [0.01, 0.0, -0.01], [1.0, 1.0, 1.0], 0.9)]), Cdl::read(...)],
            'Fountain' => [
                "INT. TIDE MILL - DAWN #12A#\n\nMara opens the sluice.\n\nMARA\n(quietly)\nIt holds.\n\n.FORCED " .
                "HEADING\n\nEXT. SHORE - DAY\n\nTOBIAS\nHow long?\n",
                Script::scenes(...),
            ],
            'CSV' => ["Scene,Setup,Take,Notes\n3,3A,2,\"gull, on the boom\"\n3,3A,3,ok\n", $file('a.csv', $table)],
            'CSV in two bytes' => [
                "\xFF\xFE" . mb_convert_encoding("Scene\tTake\tNotes\r\n3A\t2\tgull\r\n", 'UTF-16LE', 'UTF-8'),
                $file('b.csv', $table),
            ],
            'XLSX' => [self::workbook($folder), $file('a.xlsx', $table)],
        ];
    }

    private const IXML =
        '<?xml version="1.0" encoding="UTF-8"?><BWFXML><IXML_VERSION>1.61</IXML_VERSION><PROJECT>Low ' .
        'Water</PROJECT><SCENE>3A</SCENE><TAKE>4</TAKE><TAPE>S001</TAPE><CIRCLED>TRUE</CIRCLED><SPEED>' .
        '<TIMECODE_RATE>25/1</TIMECODE_RATE><TIMECODE_FLAG>NDF</TIMECODE_FLAG>' .
        '<TIMESTAMP_SAMPLES_SINCE_MIDNIGHT_HI>0</TIMESTAMP_SAMPLES_SINCE_MIDNIGHT_HI>' .
        '<TIMESTAMP_SAMPLES_SINCE_MIDNIGHT_LO>1590000000</TIMESTAMP_SAMPLES_SINCE_MIDNIGHT_LO>' .
        '<TIMESTAMP_SAMPLE_RATE>48000</TIMESTAMP_SAMPLE_RATE></SPEED><TRACK_LIST><TRACK_COUNT>2</TRACK_COUNT>' .
        '<TRACK><CHANNEL_INDEX>1</CHANNEL_INDEX><NAME>boom</NAME></TRACK><TRACK><CHANNEL_INDEX>' .
        '2</CHANNEL_INDEX><NAME>lav Mara</NAME></TRACK></TRACK_LIST></BWFXML>';

    /** Rows that were read; as many as anybody would look at. */
    private static function table(string $path): int
    {
        $open = NoteTable::open($path);
        NoteColumns::guess($open->head(30));
        $rows = 0;
        foreach ($open->rows() as $_) {
            if (++$rows > 2000) {
                break;
            }
        }

        return $rows;
    }

    private static function movie(): string
    {
        $box = static fn(string $type, string $content): string => pack('N', 8 + strlen($content)) . $type . $content;

        return $box('ftyp', 'qt  ') .
            $box('mdat', str_repeat('m', 50)) .
            $box('moov', $box('mvhd', "\0\0\0\0" . pack('N', 3_874_036_330) . str_repeat("\0", 92)));
    }

    private static function manifest(string $folder): string
    {
        @mkdir("$folder/made");

        return (string) file_get_contents(
            Manifest::write(
                "$folder/made",
                [
                    new ManifestEntry(
                        'CLIPS/a.mov',
                        7,
                        1_790_000_000,
                        HashAlgorithm::Xxh128,
                        HashAlgorithm::Xxh128->of('x'),
                        'original',
                        1_790_000_001,
                    ),
                    new ManifestEntry('b & c.txt', 1, 0, HashAlgorithm::Md5, md5('y'), 'verified', 0),
                ],
                'transfer',
                HashAlgorithm::Xxh128,
                1_790_000_002,
            ),
        );
    }

    private static function chain(string $folder): string
    {
        @mkdir("$folder/card");
        file_put_contents("$folder/card/a.mov", 'picture');
        Manifest::write(
            "$folder/card",
            [new ManifestEntry('a.mov', 7, 0, HashAlgorithm::Md5, md5('picture'), 'original', 0)],
            'in-place',
            HashAlgorithm::Md5,
            1_790_000_000,
        );

        return (string) file_get_contents("$folder/card/ascmhl/ascmhl_chain.xml");
    }

    private static function workbook(string $folder): string
    {
        $zip = new \ZipArchive();
        $zip->open("$folder/good.xlsx", \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        $zip->addFromString(
            '[Content_Types].xml',
            '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">' .
                '<Default Extension="xml" ContentType="application/xml"/></Types>',
        );
        $zip->addFromString(
            'xl/workbook.xml',
            '<?xml version="1.0"?><workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" ' .
                'xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet ' .
                'name="Notes" sheetId="1" r:id="rId1"/></sheets></workbook>',
        );
        $zip->addFromString(
            'xl/_rels/workbook.xml.rels',
            '<?xml version="1.0"?><Relationships ' .
                'xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" ' .
                'Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" ' .
                'Target="worksheets/sheet1.xml"/></Relationships>',
        );
        $zip->addFromString(
            'xl/worksheets/sheet1.xml',
            '<?xml version="1.0"?><worksheet ' .
                'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><dimension ' .
                'ref="A1:B2"/><sheetData><row r="1"><c r="A1" t="inlineStr"><is><t>Take</t></is></c><c r="B1" ' .
                't="inlineStr"><is><t>Notes</t></is></c></row><row r="2"><c r="A2"><v>3</v></c><c r="B2" ' .
                't="inlineStr"><is><t>gull</t></is></c></row></sheetData></worksheet>',
        );
        // Stored, not packed, so that a flipped bit changes what is read and not only the checksum of it.
        for ($part = 0; $part < 4; $part++) {
            $zip->setCompressionIndex($part, \ZipArchive::CM_STORE);
        }
        $zip->close();

        return (string) file_get_contents("$folder/good.xlsx");
    }
}
