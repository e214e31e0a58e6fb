<?php

declare(strict_types=1);

namespace Cartella\Core\Slate;

/**
 * Reads scene, setup and take from a file name, its folders, or a recorder's fields.
 *
 * Patterns are tried in order on the whole name; what none of them reads stays empty. Nothing is guessed: names that a
 * device counts up by itself, dates and times name no slate whatever a pattern says.
 */
final class SlateReader
{
    /** As people type it; two folders `100/5` are no slate. */
    private const TYPED = '{setup}/{take}[{-}{device}]';

    /** `S12A T3`, `Scene 12A Take 3`; `12A-T03`, `12A_T03`; `12A-3`, `12-A-3`, `12A/3`; `12A_3`, `12A 3`; `012A003`. */
    public const LETTER = [
        '{s}[{-}]{setup}{-}{t}[{-}]{take}[{-}{device}]',
        '{setup}{-}{t}[{-}]{take}[{-}{device}]',
        '{setup}-{take}[{-}{device}]',
        self::TYPED,
        '{setup+}_{take}[{-}{device}]',
        '{setup+} {take}[{-}{device}]',
        '{setup+:3}{take:3}',
    ];

    /** The scene may stand before the running number: `12 214 T2`, `214-2`, `SL214 TK2`, `SC12_SL145_T2`. */
    public const NUMBER = [
        '{s}[{-}]{setup}{-}{t}[{-}]{take}[{-}{device}]',
        '{s}[{-}]{scene}{-}{s}[{-}]{setup}{-}{t}[{-}]{take}[{-}{device}]',
        '[{scene}{-}]{setup}{-}[{t}[{-}]]{take}[{-}{device}]',
    ];

    /**
     * What people write around a slate, and what is left of it: the word slate, spaces around a dash, the roll before it,
     * that there is no sound, and the number of a recorder's file behind a take.
     */
    private const AROUND = [
        '/\b(?:SLATE|Slate|slate)(?=[ _.-]?\d)/' => 'SL',
        '/ +- +/' => '-',
        '/\A(?:ROLL|Roll|roll|RL|Rl|rl)[ _.-]?[A-Z]{0,2}\d{1,4}[ _.-]+(?=[A-Z]?\d)/' => '',
        '/[ _.-]+(?:MOS|Mos|mos)\z/' => '',
        '/((?:T|TK|TAKE|Tk|Take|t|tk|take)[ _.-]?\d{1,3}[a-hj-np-z]?)_\d{1,2}\z/' => '$1',
    ];

    /** A pickup's letters before its take, `12Apu-2`; behind it they are read as they stand. */
    private const PICKUP =
        '/\A((?:[A-Za-z]{1,5}[ _.-]?)?[A-Z]?\d{1,4}[A-Za-z]{0,2}?)[ _.-]?(?:pu|PU|Pu)' .
        '([ _\/.-]+(?:(?:T|TK|TAKE|Tk|Take|t|tk|take)[ _.-]?)?\d{1,3})(?=\z|[ _.-][A-Z]\z)/';

    /** What a picture's format is called: `24p 4` is no setup and no take. */
    private const FORMAT = '/(?<![0-9A-Za-z])(?:2[345]|30|48|50|60|720|1080|2160)[pi](?![0-9A-Za-z])/';

    /** A camera's own name for a clip, roll and count, such as `A003C005`: it names the device and no slate. */
    private const CAMERA = '/\A(?<device>[A-Z])\d{3}_?C\d{3,4}(?:_.*)?\z/';

    /** `2026-10-05`, `05.10.2026`, `20261005`, `2026-10-05 10-42-17`, `10-42-17`. */
    private const MOMENT =
        '/\A(?:\d{4}[-_. ]?\d{2}[-_. ]?\d{2}|\d{2}[-_. ]\d{2}[-_. ' .
        ']\d{4}|\d{1,2}[-_.:]\d{2}[-_.:]\d{2})(?:[-_. T]+\d{2}[-_.:]?\d{2}(?:[-_.:]?\d{2})?)?\z/';

    /** @param  list<SlatePattern>  $patterns */
    public function __construct(private readonly array $patterns) {}

    public static function standard(SlateStyle $style): self
    {
        static $readers = [];

        return $readers[$style->value] ??= self::of($style === SlateStyle::Letter ? self::LETTER : self::NUMBER, $style);
    }

    /**
     * @param  list<string>  $patterns
     *
     * @throws Exception\InvalidPattern
     */
    public static function of(array $patterns, SlateStyle $style): self
    {
        return new self(array_map(static fn(string $text): SlatePattern => SlatePattern::parse($text, $style), $patterns));
    }

    /** What a name says by the usual spellings. */
    public static function name(string $name, SlateStyle $style = SlateStyle::Letter): Slate
    {
        return self::standard($style)->read($name)['slate'];
    }

    /**
     * @param  string  $name  a file name or a path; its ending is not part of the slate
     * @return array{slate: Slate, pattern: string|null} with the pattern that read it
     */
    public function read(string $name): array
    {
        $text = trim((string) preg_replace('/\.(?=[A-Za-z0-9]{2,4}\z)(?!\d+\z)[A-Za-z0-9]{2,4}\z/', '', $name));
        $last = (string) preg_replace('~\A.*/(?=[^/]{3,})~s', '', $text);
        if (preg_match(self::CAMERA, $last, $part) === 1) {
            $own = new Slate(device: $part['device']);
            // The folders may still say it: `12A/T03/A003C005`.
            $folders = substr($text, 0, -strlen($last));
            $slate = $folders === '' ? null : $this->first(rtrim($folders, '/'), [self::TYPED]);

            return $slate === null ? ['slate' => $own, 'pattern' => null] : $slate;
        }
        if (preg_match(self::MOMENT, $last) === 1 || preg_match(self::FORMAT, $last) === 1) {
            return ['slate' => new Slate(), 'pattern' => null];
        }

        $text = (string) preg_replace(self::PICKUP, '$1$2PU', $text);

        return $this->first($text) ?? ($this->first(self::plain($text)) ?? ['slate' => new Slate(), 'pattern' => null]);
    }

    /** Without what people write around a slate. */
    private static function plain(string $text): string
    {
        return trim((string) preg_replace(array_keys(self::AROUND), array_values(self::AROUND), $text));
    }

    /**
     * What the folders of a path say, by the patterns that a production wrote for folders: those with a slash.
     *
     * @return array{slate: Slate, pattern: string|null}
     */
    public function readPath(string $path): array
    {
        $plain = array_map(
            static fn(SlatePattern $pattern): string => $pattern->text,
            array_filter($this->patterns, static fn(SlatePattern $pattern): bool => !str_contains($pattern->text, '/')),
        );
        $text = (string) preg_replace('/\.[A-Za-z0-9]{2,4}\z/', '', $path);

        return $this->first($text, [...$plain, self::TYPED]) ?? ['slate' => new Slate(), 'pattern' => null];
    }

    /** A recorder's own fields: its scene field carries the setup in letter style. */
    public static function fields(?string $scene, ?string $take, SlateStyle $style = SlateStyle::Letter): Slate
    {
        if (
            preg_match('/\A(?:TAKE|Take|TK|Tk|T|t)?[ ]?0*(\d{1,3})([a-hj-np-z]?)[ _-]?((?:PU|pu)?)\z/', trim((string) $take), $part) !== 1
        ) {
            return new Slate();
        }

        return self::checked(null, str_replace(' ', '', trim((string) $scene)), $part[1], null, $style, $part[2], $part[3] !== '') ??
            new Slate();
    }

    /** A slate of what was spelled; null where no slate says that: take 0, setup letters I and O. */
    public static function checked(
        ?string $scene,
        string $setup,
        string $take,
        ?string $device,
        SlateStyle $style,
        string $part = '',
        bool $isPickup = false,
    ): ?Slate {
        $number = (int) $take;
        if ($number < 1) {
            return null;
        }
        if ($style === SlateStyle::Number) {
            return preg_match('/\A\d{1,5}\z/', $setup) === 1 && (int) $setup > 0
                ? new Slate($scene, (string) (int) $setup, $number, $device, $part, $isPickup)
                : null;
        }
        $parsed = SetupName::parse($setup);

        return $parsed === null ? null : new Slate($parsed->scene(), $parsed->label(), $number, $device, $part, $isPickup);
    }

    /**
     * @param  list<string>  $without  patterns that are not tried
     * @return array{slate: Slate, pattern: string}|null
     */
    private function first(string $text, array $without = []): ?array
    {
        foreach ($this->patterns as $pattern) {
            $slate = in_array($pattern->text, $without, true) ? null : $pattern->read($text);
            if ($slate !== null) {
                return ['slate' => $slate, 'pattern' => $pattern->text];
            }
        }

        return null;
    }
}
