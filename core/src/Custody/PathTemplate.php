<?php

declare(strict_types=1);

namespace Cartella\Core\Custody;

use Cartella\Core\Custody\Exception\InvalidCustody;

/**
 * Where cards land below a volume, written with words in braces: `{production}/{day}/{device}/{roll}`. The last folder
 * is the card's own and names its roll, so that no two cards share one.
 */
final readonly class PathTemplate
{
    public const DEFAULT = '{production}/{day}/{device}/{roll}';

    public const WORDS = ['production', 'day', 'date', 'unit', 'device', 'kind', 'roll'];

    private const LENGTH_LIMIT = 200;

    private const NAME_LIMIT = 80;

    /** @param  list<string>  $folders */
    private function __construct(private array $folders) {}

    /** @throws InvalidCustody if it climbs, names an unknown word, or its last folder is not the card's own */
    public static function parse(string $text): self
    {
        $folders = explode('/', trim($text, '/ '));
        if (strlen($text) > self::LENGTH_LIMIT) {
            throw InvalidCustody::template('it is longer than ' . self::LENGTH_LIMIT . ' letters');
        }
        foreach ($folders as $folder) {
            if (trim($folder, ' .') === '') {
                throw InvalidCustody::template('a folder in it has no name');
            }
            preg_match_all('/\{([^{}]*)\}/', $folder, $words);
            foreach ($words[1] as $word) {
                if (!in_array($word, self::WORDS, true)) {
                    throw InvalidCustody::template(sprintf('there is no word {%s}', InvalidCustody::quote($word)));
                }
            }
            if (preg_match('/[{}]/', (string) preg_replace('/\{[a-z]+\}/', '', $folder)) === 1) {
                throw InvalidCustody::template('a brace is left open');
            }
        }
        if (!str_contains((string) end($folders), '{roll}')) {
            throw InvalidCustody::template('its last folder must hold {roll}, so that every card has a folder of its own');
        }

        return new self($folders);
    }

    /**
     * @param  array<string, string>  $values  by word; what is missing is left out
     * @return array{below: string, name: string} the folders above the card's own, and its own
     */
    public function expand(array $values): array
    {
        $folders = array_map(
            static fn(string $folder): string => self::plain(
                (string) preg_replace_callback(
                    '/\{([a-z]+)\}/',
                    static fn(array $word): string => str_replace('/', '_', $values[$word[1]] ?? ''),
                    $folder,
                ),
            ),
            $this->folders,
        );
        $name = (string) array_pop($folders);

        return ['below' => implode('/', $folders), 'name' => $name];
    }

    /** A name that every file system takes. */
    public static function plain(string $name): string
    {
        $plain = trim((string) preg_replace('/[^\p{L}\p{N} _.()-]+/u', '_', mb_scrub($name)), ' .');

        return $plain === '' ? '_' : mb_substr($plain, 0, self::NAME_LIMIT);
    }
}
