<?php

declare(strict_types=1);

namespace Cartella\Core\Words\Exception;

use Cartella\Core\Failure;

/** Sound whose words could not be found, and why. */
final class UnableToRecognise extends Failure
{
    public static function noEngine(string $package): self
    {
        return new self(
            'The program that recognises words is not on this machine.',
            'words.no_engine',
            "Install the package $package, then try again.",
            ['package' => $package],
        );
    }

    public static function noSound(string $name): self
    {
        return new self(
            sprintf('%s has no sound in which words could be found.', self::quote($name)),
            'words.no_sound',
            'Choose the recording that has the sound.',
        );
    }

    public static function failed(string $why): self
    {
        return new self(
            sprintf('The program that recognises words stopped: %s.', rtrim(self::quote($why), '.')),
            'words.engine_failed',
            'Try again; if it stays so, its last words are in the log.',
            ['reason' => self::quote($why)],
        );
    }

    public static function language(string $language): self
    {
        return new self(
            sprintf('There is no model for the language "%s".', self::quote($language)),
            'words.no_language',
            'Add its folder to the models, or choose a language that is there.',
        );
    }
}
