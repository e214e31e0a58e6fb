<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Custody\Exception\UnableToVerify;
use Cartella\Core\UnableToReadXml;
use Cartella\Core\Xml;

/**
 * The history of a folder in ASC MHL 2.0: a generation per offload or check under `ascmhl/`, and the chain that owns
 * them by their C4 identifiers.
 */
final class Manifest
{
    public const NAMESPACE = 'urn:ASC:MHL:v2.0';

    public const CHAIN_NAMESPACE = 'urn:ASC:MHL:DIRECTORY:v2.0';

    public const IGNORED = ['.DS_Store', '._*', '.Spotlight-V100', '.Trashes', '.fseventsd', 'ascmhl'];

    public const CHAIN = 'ascmhl_chain.xml';

    private const TOOL = 'Cartella';

    /**
     * Adds a generation and its line in the chain; both under a temporary name first.
     *
     * @param  list<ManifestEntry>  $entries
     * @param  'transfer'|'in-place'  $process
     * @param  int  $now  Unix seconds
     * @param  string|null  $title  what the folder will be called, where that is not its name yet
     * @return string the manifest's path
     */
    public static function write(
        string $folder,
        array $entries,
        string $process,
        HashAlgorithm $algorithm,
        int $now,
        ?string $title = null,
    ): string {
        $history = $folder . '/' . FolderWalk::HISTORY;
        if (!is_dir($history)) {
            @mkdir($history, 0777);
        }
        usort($entries, static fn(ManifestEntry $x, ManifestEntry $y): int => strcmp($x->path, $y->path));
        $chain = self::chain($folder);
        $generation = count($chain) + 1;
        self::clearUnowned($history, $generation, array_column($chain, 'path'));
        $label = preg_replace('/[^A-Za-z0-9._-]+/', '_', $title ?? basename($folder));
        $file = sprintf('%s/%04d_%s_%s.mhl', $history, $generation, $label, gmdate('Y-m-d_His\Z', $now));
        self::put($file, static fn(\XMLWriter $xml) => self::writeGeneration($xml, $folder, $entries, $process, $algorithm, $now));
        $chain[] = ['path' => basename($file), 'c4' => C4::ofFile($file)];
        self::put($history . '/' . self::CHAIN, static fn(\XMLWriter $xml) => self::writeChain($xml, $chain));

        return $file;
    }

    /**
     * A run that was killed between its manifest and the chain left one that nobody vouches for; it is made again now.
     *
     * @param  list<string>  $owned
     */
    private static function clearUnowned(string $history, int $generation, array $owned): void
    {
        foreach (scandir($history) ?: [] as $name) {
            if (
                (str_starts_with($name, sprintf('%04d_', $generation)) && !in_array($name, $owned, true)) ||
                str_ends_with($name, '.part')
            ) {
                @unlink($history . '/' . $name);
            }
        }
    }

    /**
     * @return list<array{path: string, c4: string}> the chain's generations in order; empty when there is none
     *
     * @throws UnableToVerify if the chain is not the XML it should be
     */
    public static function chain(string $folder): array
    {
        $file = $folder . '/' . FolderWalk::HISTORY . '/' . self::CHAIN;
        if (!is_file($file)) {
            return [];
        }
        $list = [];
        foreach (self::load($file)->children(self::CHAIN_NAMESPACE)->hashlist as $hashlist) {
            $list[(int) $hashlist->attributes()['sequencenr']] = ['path' => (string) $hashlist->path, 'c4' => (string) $hashlist->c4];
        }
        ksort($list);

        return array_values($list);
    }

    /**
     * @return list<ManifestEntry>
     *
     * @throws UnableToVerify if the file is not a manifest
     */
    public static function read(string $file): array
    {
        $entries = [];
        foreach (self::load($file)->children(self::NAMESPACE)->hashes->hash ?? [] as $hash) {
            foreach (HashAlgorithm::cases() as $algorithm) {
                $value = $hash->{$algorithm->value};
                if ((string) $value === '') {
                    continue;
                }
                $entries[] = new ManifestEntry(
                    (string) $hash->path,
                    (int) $hash->path->attributes()['size'],
                    (int) strtotime((string) $hash->path->attributes()['lastmodificationdate']),
                    $algorithm,
                    $algorithm === HashAlgorithm::C4 ? trim((string) $value) : strtolower(trim((string) $value)),
                    match ((string) $value->attributes()['action']) {
                        'verified' => 'verified',
                        'failed' => 'failed',
                        default => 'original',
                    },
                    (int) strtotime((string) $value->attributes()['hashdate']),
                );
                break;
            }
        }

        return $entries;
    }

    /**
     * Takes over the history that a card brings along, so that its copy goes on with it; one that is there stays.
     *
     * @param  string  $from  the card's folder
     */
    public static function adopt(string $from, string $folder): void
    {
        $chain = self::chain($from);
        if ($chain === [] || self::chain($folder) !== []) {
            return;
        }
        foreach ([...array_column($chain, 'path'), self::CHAIN] as $name) {
            $file = $from . '/' . FolderWalk::HISTORY . '/' . $name;
            if (basename($name) !== $name || is_link($file) || !@copy($file, $folder . '/' . FolderWalk::HISTORY . '/' . $name)) {
                throw UnableToVerify::manifest($file, 'the chain names it, and it cannot be copied');
            }
        }
    }

    /**
     * What a generation says of itself: its process and the patterns of names that it leaves out.
     *
     * @return array{process: string, ignore: list<string>}
     *
     * @throws UnableToVerify if the file is not a manifest
     */
    public static function about(string $file): array
    {
        $process = self::load($file)->children(self::NAMESPACE)->processinfo;
        $ignore = [];
        foreach ($process->ignore->pattern ?? [] as $pattern) {
            $ignore[] = (string) $pattern;
        }

        return ['process' => (string) $process->process, 'ignore' => $ignore];
    }

    /** Whether a name can stand in XML 1.0 at all: valid UTF-8 without control characters but tab and newlines. */
    public static function canName(string $path): bool
    {
        return preg_match('/\A[\x{9}\x{A}\x{D}\x{20}-\x{D7FF}\x{E000}-\x{FFFD}\x{10000}-\x{10FFFF}]+\z/u', $path) === 1;
    }

    /** @throws UnableToVerify if the file is not XML, or declares entities */
    public static function load(string $file): \SimpleXMLElement
    {
        $text = @file_get_contents($file);
        if ($text === false) {
            throw UnableToVerify::manifest($file, 'it cannot be opened');
        }
        try {
            return Xml::parse($text);
        } catch (UnableToReadXml $trouble) {
            throw UnableToVerify::manifest($file, $trouble->reason(), $trouble);
        }
    }

    /**
     * Written element by element under a temporary name: a card of a hundred thousand files needs no more memory.
     *
     * @param  callable(\XMLWriter): void  $write
     */
    private static function put(string $file, callable $write): void
    {
        $temporary = $file . '.part';
        $xml = new \XMLWriter();
        $stream = @fopen($temporary, 'c+b');
        if ($stream === false || !ftruncate($stream, 0) || !@$xml->openUri($temporary)) {
            throw UnableToVerify::manifest($file, 'it could not be written');
        }
        // The writer reports a full disk as a notice only; whether all of it arrived is looked at afterwards.
        set_error_handler(static fn(): bool => true);
        try {
            $xml->setIndent(true);
            $xml->setIndentString('  ');
            $xml->startDocument('1.0', 'UTF-8');
            $write($xml);
            $xml->endDocument();
            $xml->flush();
            unset($xml);
        } finally {
            restore_error_handler();
        }
        if (!self::endsWhole($stream) || !@fsync($stream)) {
            fclose($stream);
            @unlink($temporary);
            throw UnableToVerify::manifest($file, 'it could not be written');
        }
        fclose($stream);
        if (!@rename($temporary, $file)) {
            throw UnableToVerify::manifest($file, 'it could not be written');
        }
    }

    /**
     * Whether the closing tag arrived: the writer does not say so when a disk is full.
     *
     * @param  resource  $stream
     */
    private static function endsWhole($stream): bool
    {
        $size = fstat($stream)['size'] ?? 0;
        fseek($stream, max(0, $size - 64));

        return preg_match('~</(hashlist|ascmhldirectory)>\s*\z~', (string) fread($stream, 64)) === 1;
    }

    /** @param  list<ManifestEntry>  $entries */
    private static function writeGeneration(
        \XMLWriter $xml,
        string $folder,
        array $entries,
        string $process,
        HashAlgorithm $algorithm,
        int $now,
    ): void {
        $xml->startElementNs(null, 'hashlist', self::NAMESPACE);
        $xml->writeAttribute('version', '2.0');
        $xml->startElement('creatorinfo');
        $xml->writeElement('creationdate', self::date($now));
        $xml->writeElement('hostname', (string) gethostname());
        $xml->startElement('tool');
        $xml->writeAttribute('version', '1');
        $xml->text(self::TOOL);
        $xml->endElement();
        $xml->endElement();
        $folders = self::folderHashes($folder, $entries, $algorithm);
        $xml->startElement('processinfo');
        $xml->writeElement('process', $process);
        $xml->startElement('roothash');
        self::pair($xml, $folders[''], $algorithm, $now);
        $xml->endElement();
        $xml->startElement('ignore');
        foreach (self::IGNORED as $pattern) {
            $xml->writeElement('pattern', $pattern);
        }
        $xml->endElement();
        $xml->endElement();
        $xml->startElement('hashes');
        foreach ($entries as $entry) {
            $xml->startElement('hash');
            $xml->startElement('path');
            $xml->writeAttribute('size', (string) $entry->sizeBytes);
            $xml->writeAttribute('lastmodificationdate', self::date($entry->modifiedAt));
            self::text($xml, $entry->path);
            $xml->endElement();
            $xml->startElement($entry->algorithm->value);
            $xml->writeAttribute('action', $entry->action);
            $xml->writeAttribute('hashdate', self::date($entry->hashedAt));
            $xml->text($entry->hash);
            $xml->endElement();
            $xml->endElement();
        }
        unset($folders['']);
        ksort($folders, SORT_STRING);
        foreach ($folders as $path => $hashes) {
            $xml->startElement('directoryhash');
            $xml->startElement('path');
            self::text($xml, (string) $path);
            $xml->endElement();
            self::pair($xml, $hashes, $algorithm, $now);
            $xml->endElement();
        }
        $xml->endElement();
        $xml->endElement();
    }

    /** @param  array{content: string, structure: string}  $hashes */
    private static function pair(\XMLWriter $xml, array $hashes, HashAlgorithm $algorithm, int $now): void
    {
        foreach ($hashes as $kind => $hash) {
            $xml->startElement($kind);
            $xml->startElement($algorithm->value);
            $xml->writeAttribute('hashdate', self::date($now));
            $xml->text($hash);
            $xml->endElement();
            $xml->endElement();
        }
    }

    /**
     * Content and structure hash of every folder, from the leaves up. Content: the checksums of what is in it, sorted,
     * as bytes, hashed. Structure: the hashes of the names, a folder's name together with its own structure, the same way.
     *
     * @param  list<ManifestEntry>  $entries
     * @return array<string, array{content: string, structure: string}> by path, '' for the folder itself
     */
    private static function folderHashes(string $folder, array $entries, HashAlgorithm $algorithm): array
    {
        $contents = $structures = ['' => []];
        foreach ($entries as $entry) {
            $parent = dirname($entry->path) === '.' ? '' : dirname($entry->path);
            for ($path = $parent; $path !== '' && !isset($contents[$path]); $path = dirname($path) === '.' ? '' : dirname($path)) {
                $contents[$path] = $structures[$path] = [];
            }
            $contents[$parent][] = (string) hex2bin(strlen($entry->hash) % 2 === 0 && ctype_xdigit($entry->hash) ? $entry->hash : '');
            $structures[$parent][] = (string) hex2bin($algorithm->of(basename($entry->path)));
        }
        $paths = array_map('strval', array_keys($contents));
        usort($paths, static fn(string $x, string $y): int => substr_count($y, '/') <=> substr_count($x, '/') ?: strlen($y) <=> strlen($x));
        $hashes = [];
        foreach ($paths as $path) {
            $hashes[$path] = [
                'content' => self::listHash($contents[$path], $algorithm),
                'structure' => self::listHash($structures[$path], $algorithm),
            ];
            if ($path === '') {
                continue;
            }
            $parent = dirname($path) === '.' ? '' : dirname($path);
            $contents[$parent][] = (string) hex2bin($hashes[$path]['content']);
            $structures[$parent][] = (string) hex2bin(
                $algorithm->of(hex2bin($algorithm->of(basename($path))) . hex2bin($hashes[$path]['structure'])),
            );
        }

        return $hashes;
    }

    /** @param  list<string>  $digests bytes */
    private static function listHash(array $digests, HashAlgorithm $algorithm): string
    {
        sort($digests, SORT_STRING);

        return $algorithm->of(implode('', $digests));
    }

    /** @param  list<array{path: string, c4: string}>  $chain */
    private static function writeChain(\XMLWriter $xml, array $chain): void
    {
        $xml->startElementNs(null, 'ascmhldirectory', self::CHAIN_NAMESPACE);
        foreach ($chain as $index => $entry) {
            $xml->startElement('hashlist');
            $xml->writeAttribute('sequencenr', (string) ($index + 1));
            $xml->writeElement('path', $entry['path']);
            $xml->writeElement('c4', $entry['c4']);
            $xml->endElement();
        }
        $xml->endElement();
    }

    /** A carriage return written plain would be read back as a newline. */
    private static function text(\XMLWriter $xml, string $text): void
    {
        $xml->writeRaw(str_replace("\r", '&#13;', htmlspecialchars($text, ENT_XML1 | ENT_NOQUOTES, 'UTF-8')));
    }

    private static function date(int $time): string
    {
        return gmdate('Y-m-d\TH:i:s+00:00', $time);
    }
}
