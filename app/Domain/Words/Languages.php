<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Support\Problem;
use Cartella\Core\Words\SpeechModel;

/** The languages that can be recognised on this machine: a folder each, Debian's and those that were added. */
final class Languages
{
    public const DEFAULT = 'en-us';

    /** @return array<string, SpeechModel> by language */
    public static function all(): array
    {
        return SpeechModel::all(config('cartella.speech_models'));
    }

    /** @throws Problem where its folder is not there */
    public static function of(string $language): SpeechModel
    {
        return self::all()[$language] ??
            throw Problem::refused(
                'words.language',
                $language === self::DEFAULT
                    ? 'The program that recognises words is not on this machine.'
                    : "There is no model for the language \"$language\" on this machine.",
                $language === self::DEFAULT
                    ? 'Install Debian\'s packages pocketsphinx and pocketsphinx-en-us, or set up a service.'
                    : 'Put its folder beside the others, or choose one that is there.',
            );
    }
}
