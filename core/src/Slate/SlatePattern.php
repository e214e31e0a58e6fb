<?php

declare(strict_types=1);

namespace Cartella\Core\Slate;

use Cartella\Core\Slate\Exception\InvalidPattern;

/**
 * One spelling of slates, written by people: `{setup}-{t}{take}[_{device}]`.
 *
 * Fields: `{scene}`, `{setup}`, `{setup+}` (only with letters), `{take}`, `{device}`, `{roll}`, `{any}`; `{setup:3}`,
 * `{setup+:3}` and `{take:3}` ask for that many digits. `{s}` and `{t}` stand for the words scene and take in their usual
 * spellings, `{-}` for one space, underscore, dash, slash or point. What stands in `[ ]` may be missing; every other
 * character stands for itself, a slash for the edge of a folder too. A take may carry a small letter (`4a`) and `PU`.
 */
final readonly class SlatePattern
{
    private const MAX_LENGTH = 120;

    private const FIELDS = [
        'scene' => '(?<scene>[A-Z]?\d{1,4}[A-Za-z]{0,3})',
        'take' => '(?<take>\d{%s})(?<part>[a-hj-np-z]?)(?<pickup>(?:[ _-]?PU)?)',
        'device' => '(?<device>[A-Z])',
        'roll' => '[A-Z]{1,2}\d{2,4}',
        'any' => '[^\/]{1,80}?',
        's' => '(?:SCENE|Scene|scene|SC|Sc|sc|SL|Sl|sl|S|s)',
        't' => '(?:TAKE|Take|take|TK|Tk|tk|T|t)',
        '-' => '[ _\/.-]',
    ];

    private function __construct(public string $text, public SlateStyle $style, private string $expression) {}

    /** @throws InvalidPattern naming what of the text is not understood */
    public static function parse(string $text, SlateStyle $style = SlateStyle::Letter): self
    {
        if ($text === '' || strlen($text) > self::MAX_LENGTH) {
            throw InvalidPattern::slate($text, 'it has to have 1 to ' . self::MAX_LENGTH . ' characters');
        }
        $expression = '';
        $depth = 0;
        $seen = [];
        foreach (preg_split('/(\{[^{}]*\}|[\[\]])/', $text, -1, PREG_SPLIT_DELIM_CAPTURE | PREG_SPLIT_NO_EMPTY) ?: [] as $piece) {
            if ($piece === '[' || $piece === ']') {
                $depth += $piece === '[' ? 1 : -1;
                $expression .= $piece === '[' ? '(?:' : ')?';
                if ($depth < 0 || $depth > 3) {
                    throw InvalidPattern::slate($text, 'its brackets do not pair');
                }
            } elseif ($piece[0] === '{') {
                $field = substr($piece, 1, -1);
                $expression .= self::field($field, $style) ?? throw InvalidPattern::slate($text, sprintf('%s is not a field', $piece));
                $name = (string) preg_replace('/[+:].*/', '', $field);
                if (in_array($name, ['scene', 'setup', 'take', 'device'], true) && isset($seen[$name])) {
                    throw InvalidPattern::slate($text, sprintf('{%s} stands in it twice', $name));
                }
                $seen[$name] = true;
            } elseif (strpbrk($piece, '{}') !== false) {
                throw InvalidPattern::slate($text, 'a brace is open');
            } else {
                $expression .= preg_quote($piece, '~');
            }
        }
        if ($depth !== 0) {
            throw InvalidPattern::slate($text, 'its brackets do not pair');
        }
        if (!isset($seen['setup'], $seen['take'])) {
            throw InvalidPattern::slate($text, 'it needs {setup} and {take}');
        }

        return new self($text, $style, '~\A' . $expression . '\z~');
    }

    /**
     * The slate that a name or a path says in this spelling; null where it is spelled otherwise, or says what no slate
     * says (take 0, setup letters I and O).
     *
     * @param  string  $name  without its ending; folders before it are looked at where the pattern has slashes
     */
    public function read(string $name): ?Slate
    {
        $parts = array_slice(explode('/', $name), -1 - substr_count($this->text, '/'));
        foreach (array_unique([$name, implode('/', $parts)]) as $spelled) {
            if (preg_match($this->expression, $spelled, $part, PREG_UNMATCHED_AS_NULL) === 1) {
                return SlateReader::checked(
                    $part['scene'] ?? null,
                    (string) $part['setup'],
                    (string) $part['take'],
                    $part['device'] ?? null,
                    $this->style,
                    $part['part'] ?? '',
                    ($part['pickup'] ?? '') !== '',
                );
            }
        }

        return null;
    }

    private static function field(string $field, SlateStyle $style): ?string
    {
        if (preg_match('/\A(?<name>setup\+?|take)(?::(?<width>[1-5]))?\z/', $field, $part) === 1) {
            $width = $part['width'] ?? '';
            if ($part['name'] === 'take') {
                return sprintf(self::FIELDS['take'], $width === '' ? '1,3' : $width);
            }
            if ($style === SlateStyle::Number) {
                return '(?<setup>\d{' . ($width === '' ? '1,5' : $width) . '})';
            }
            $letters = $part['name'] === 'setup+' ? '-?[A-Za-z]{1,2}' : '(?:-?[A-Za-z]{1,2})?';

            // S before a number is the word scene more often than a scene's own letter.
            return '(?<setup>(?!S\d)[A-Z]?\d{' . ($width === '' ? '1,4' : $width) . '}(?:[a-z]{2,3})?' . $letters . ')';
        }

        return self::FIELDS[$field] ?? null;
    }
}
