<?php

declare(strict_types=1);

namespace Cartella\Core;

/**
 * The one loader of XML that others wrote (XML 1.0), in whatever encoding it declares or begins with.
 *
 * A document type is refused where the parser itself meets it, after decoding: a search in the bytes would miss one in
 * UTF-16 or UTF-32. Nothing is fetched, no entity is expanded, and elements nest to libxml's own limit (256) at most.
 */
final class Xml
{
    private const DOCUMENT_TYPE = 'it declares a document type or entities';

    /** @throws UnableToReadXml if it is not well-formed, or declares a document type or entities */
    public static function parse(string $text, int $flags = 0): \SimpleXMLElement
    {
        $previous = libxml_use_internal_errors(true);
        try {
            if (trim($text) === '') {
                throw UnableToReadXml::because('it is empty');
            }
            self::refuseDocumentType($text);
            $root = simplexml_load_string($text, \SimpleXMLElement::class, LIBXML_NONET | $flags);

            return $root === false ? throw UnableToReadXml::because('it is not well-formed') : $root;
        } finally {
            libxml_clear_errors();
            libxml_use_internal_errors($previous);
        }
    }

    /** Whether text that may be cut off declares a document type before its first element. */
    public static function declaresDocumentType(string $head): bool
    {
        if (trim($head) === '') {
            return false;
        }
        $previous = libxml_use_internal_errors(true);
        try {
            self::refuseDocumentType($head);

            return false;
        } catch (UnableToReadXml $trouble) {
            return $trouble->reason() === self::DOCUMENT_TYPE;
        } finally {
            libxml_clear_errors();
            libxml_use_internal_errors($previous);
        }
    }

    private static function refuseDocumentType(string $text): void
    {
        $reader = \XMLReader::XML($text, null, LIBXML_NONET);
        if (!($reader instanceof \XMLReader)) {
            throw UnableToReadXml::because('it is not well-formed');
        }
        while (@$reader->read()) {
            if ($reader->nodeType === \XMLReader::DOC_TYPE) {
                throw UnableToReadXml::because(self::DOCUMENT_TYPE);
            }
            if ($reader->nodeType === \XMLReader::ELEMENT) {
                return; // no document type may come after the first element
            }
        }
        throw UnableToReadXml::because('it is not well-formed');
    }
}
