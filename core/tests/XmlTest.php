<?php

declare(strict_types=1);

namespace Cartella\Core\Tests;

use Cartella\Core\UnableToReadXml;
use Cartella\Core\Xml;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class XmlTest extends TestCase
{
    private const HOSTILE = '<?xml version="1.0"?><!DOCTYPE a [<!ENTITY x SYSTEM "file:///etc/passwd">]><a>&x;</a>';

    /** @return array<string, array{string}> */
    public static function encodings(): array
    {
        $declared = static fn(string $encoding): string => mb_convert_encoding(
            str_replace('"1.0"', '"1.0" encoding="' . $encoding . '"', self::HOSTILE),
            $encoding,
            'UTF-8',
        );

        return [
            'UTF-8' => [self::HOSTILE],
            'UTF-16 with a mark, low byte first' => ["\xFF\xFE" . mb_convert_encoding(self::HOSTILE, 'UTF-16LE', 'UTF-8')],
            'UTF-16 with a mark, high byte first' => ["\xFE\xFF" . mb_convert_encoding(self::HOSTILE, 'UTF-16BE', 'UTF-8')],
            'UTF-16 without a mark' => [mb_convert_encoding(self::HOSTILE, 'UTF-16LE', 'UTF-8')],
            'UTF-32' => [$declared('UTF-32BE')],
            'UTF-7, in which no angle bracket is one' => [$declared('UTF-7')],
            'behind a comment' => ["<?xml version=\"1.0\"?><!-- <a> --><?p x?>\n<!DOCTYPE a><a/>"],
        ];
    }

    #[DataProvider('encodings')]
    public function test_a_document_type_is_refused_in_any_encoding(string $text): void
    {
        $this->expectException(UnableToReadXml::class);
        Xml::parse($text);
    }

    public function test_text_that_only_speaks_of_a_document_type_is_read(): void
    {
        self::assertSame('<!DOCTYPE a>', (string) Xml::parse('<a><![CDATA[<!DOCTYPE a>]]></a>'));
    }

    public function test_elements_nested_without_end_are_refused_before_they_fill_the_memory(): void
    {
        $this->expectException(UnableToReadXml::class);
        Xml::parse(str_repeat('<a>', 100_000) . str_repeat('</a>', 100_000));
    }
}
