<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Custody\Exception\UnableToVerify;

/**
 * Reads the hash lists that others wrote in Media Hash List 1.1: one file beside the material, no history, no chain.
 * Paths are relative to the list; MD5, SHA-1, XXH32 (decimal) and XXH64 are known. It is never written.
 */
final class LegacyManifest
{
    /** @return list<string> hash lists directly in a folder, in byte order */
    public static function in(string $folder): array
    {
        $lists = [];
        foreach (@scandir($folder) ?: [] as $name) {
            if (str_ends_with(strtolower($name), '.mhl') && is_file($folder . '/' . $name)) {
                $lists[] = $name;
            }
        }

        return $lists;
    }

    /**
     * @return list<ManifestEntry> files without a checksum that is known here are left out
     *
     * @throws UnableToVerify if the file is not a hash list of that kind
     */
    public static function read(string $file): array
    {
        $list = Manifest::load($file);
        if ($list->getName() !== 'hashlist' || !str_starts_with((string) $list['version'], '1.')) {
            throw UnableToVerify::manifest($file, 'it is no hash list of version 1');
        }
        $entries = [];
        foreach ($list->hash as $hash) {
            [$algorithm, $value] = self::checksum($hash);
            if ($algorithm !== null) {
                $entries[] = new ManifestEntry(
                    str_replace('\\', '/', (string) $hash->file),
                    (int) $hash->size,
                    (int) strtotime((string) $hash->lastmodificationdate),
                    $algorithm,
                    $value,
                    'original',
                    (int) strtotime((string) $hash->hashdate),
                );
            }
        }

        return $entries;
    }

    /** @return array{HashAlgorithm|null, string} */
    private static function checksum(\SimpleXMLElement $hash): array
    {
        foreach (
            [
                'md5' => HashAlgorithm::Md5,
                'sha1' => HashAlgorithm::Sha1,
                'xxhash64be' => HashAlgorithm::Xxh64,
                'xxhash64' => HashAlgorithm::Xxh64,
            ]
            as $element => $algorithm
        ) {
            $value = strtolower(trim((string) $hash->{$element}));
            if ($value !== '' && ctype_xdigit($value) && strlen($value) % 2 === 0) {
                // The older of the two 64-bit elements has the bytes in the order of the machine that wrote it.
                return [$algorithm, $element === 'xxhash64' ? bin2hex(strrev((string) hex2bin($value))) : $value];
            }
        }
        $value = trim((string) $hash->xxhash);

        return ctype_digit($value) ? [HashAlgorithm::Xxh32, sprintf('%08x', (int) $value)] : [null, ''];
    }
}
