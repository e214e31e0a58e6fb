<?php

declare(strict_types=1);

namespace Cartella\Core\Lineup\Exception;

use Cartella\Core\Failure;
use Cartella\Core\Lineup\Way;

/** A line-up that cannot be asked for. */
final class InvalidLineup extends Failure
{
    public static function way(string $way): self
    {
        return new self(
            sprintf('"%s" is not a way to line up.', self::quote($way)),
            'lineup.way',
            'Ways are ' . implode(', ', array_column(Way::cases(), 'value')) . '.',
            ['way' => self::quote($way)],
        );
    }

    public static function clip(int|string $index, string $why): self
    {
        return new self(
            sprintf('Clip %s %s.', (string) $index, $why),
            'lineup.manifest',
            'A manifest is {"clips":[{"id","device","path"}],"ways":["sound"]}.',
            ['clip' => (string) $index],
        );
    }

    public static function manifest(string $why): self
    {
        return new self(
            'The manifest ' . $why . '.',
            'lineup.manifest',
            'A manifest is {"clips":[{"id","device","path"}],"ways":["sound"]}.',
        );
    }
}
