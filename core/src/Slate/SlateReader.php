<?php

declare(strict_types=1);

namespace Cartella\Core\Slate;

/**
 * Reads scene, setup and take from a file name or from a recorder's fields.
 *
 * Patterns are tried in order on the whole name; what none of them reads stays empty. Nothing is guessed.
 */
final class SlateReader
{
    private const SETUP = '(?<setup>[A-Z]?\d{1,4}(?:[a-z]{2,3})?(?:-?[A-Za-z]{1,2})?)';

    private const TAKE = '(?<take>\d{1,3})';

    private const DEVICE = '(?:[ _-](?<device>[A-Z]))?';

    /** `S12A T3`, `SC 12A TK 3`; then `12A-T03`, `12A_T03`; `12A-3`, `12-A-3`, `12A/3`, `12A_3`; `012A003`. */
    private const LETTER = [
        '/\A(?:S|SC|Sc|SCENE|Scene)[ _]?(?<setup>\d{1,4}(?:[a-z]{2,3})?[A-Za-z]{0,2})[ _-](?:T|TK|Tk|t)[ _]?'.self::TAKE.self::DEVICE.'\z/',
        '/\A'.self::SETUP.'[ _\/-](?:T|TK|Tk|t)[ _]?'.self::TAKE.self::DEVICE.'\z/',
        '/\A(?!S\d)'.self::SETUP.'[\/-]'.self::TAKE.self::DEVICE.'\z/',
        '/\A(?<setup>\d{1,4}[A-Z]{1,2})_'.self::TAKE.self::DEVICE.'\z/',
        '/\A(?<setup>\d{3}[A-Z]{1,2})(?<take>\d{3})\z/',
    ];

    private const NUMBER = [
        '/\A(?:(?<scene>[A-Z]?\d{1,4}[A-Za-z]{0,2})[ _-])?(?<setup>\d{1,5})[ _\/-](?:T|TK|Tk|t)?[ _]?'.self::TAKE.self::DEVICE.'\z/',
        '/\A(?:S|SL|Sl)[ _]?(?<setup>\d{1,5})[ _-](?:T|TK|Tk)[ _]?'.self::TAKE.self::DEVICE.'\z/',
    ];

    /** A camera's own name for a clip, roll and count, such as `A003C005`: it names the device and no slate. */
    private const CAMERA = '/\A(?<device>[A-Z])\d{3}_?C\d{3,4}(?:_.*)?\z/';

    public static function name(string $name, SlateStyle $style = SlateStyle::Letter): Slate
    {
        $text = trim((string) preg_replace('/\.[A-Za-z0-9]{2,4}\z/', '', $name));
        if (preg_match(self::CAMERA, $text, $part) === 1) {
            return new Slate(device: $part['device']);
        }
        foreach ($style === SlateStyle::Letter ? self::LETTER : self::NUMBER as $pattern) {
            if (preg_match($pattern, $text, $part, PREG_UNMATCHED_AS_NULL) === 1) {
                return self::checked($part['scene'] ?? null, (string) $part['setup'], (string) $part['take'], $part['device'] ?? null, $style);
            }
        }

        return new Slate();
    }

    /** A recorder's own fields: its scene field carries the setup in letter style. */
    public static function fields(?string $scene, ?string $take, SlateStyle $style = SlateStyle::Letter): Slate
    {
        $takeText = preg_match('/\A(?:T|TK|Tk)?[ ]?0*(\d{1,3})\z/', trim((string) $take), $part) === 1 ? $part[1] : '';

        return self::checked(null, str_replace(' ', '', trim((string) $scene)), $takeText, null, $style);
    }

    private static function checked(?string $scene, string $setup, string $take, ?string $device, SlateStyle $style): Slate
    {
        $number = (int) $take > 0 ? (int) $take : null;
        if ($number === null) {
            return new Slate();
        }
        if ($style === SlateStyle::Number) {
            return (int) $setup > 0 ? new Slate($scene, (string) (int) $setup, $number, $device) : new Slate();
        }
        $parsed = SetupName::parse($setup);

        return $parsed === null ? new Slate() : new Slate($parsed->scene(), $parsed->label(), $number, $device);
    }
}
