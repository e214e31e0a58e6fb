<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

/**
 * What a recogniser knows of one language: a folder with an acoustic model (a folder that holds `mdef`), a dictionary (`*.dict`) and,
 * where free speech shall be found too, a general language model (`*.lm.bin` or `*.lm`). The folder's name is the language,
 * such as `en-us`.
 */
final readonly class SpeechModel
{
    private function __construct(public string $language, public string $acoustic, public string $dictionary, public ?string $general) {}

    /**
     * @param  list<string>  $folders  that hold a folder for each language
     * @return array<string, self> by language
     */
    public static function all(array $folders): array
    {
        $found = [];
        foreach ($folders as $folder) {
            foreach (glob($folder . '/*', GLOB_ONLYDIR) ?: [] as $path) {
                $model = self::at($path);
                if ($model !== null) {
                    $found[$model->language] ??= $model;
                }
            }
        }
        ksort($found);

        return $found;
    }

    /** @return self|null null where the folder is no whole model */
    public static function at(string $path): ?self
    {
        $acoustic = glob($path . '/*/mdef') ?: (glob($path . '/mdef') ?: []);
        $dictionaries = glob($path . '/*.dict') ?: [];
        $general = array_filter(
            [...glob($path . '/*.lm.bin') ?: [], ...glob($path . '/*.lm') ?: []],
            static fn(string $file): bool => !str_contains(basename($file), 'phone'),
        );

        return $acoustic === [] || $dictionaries === []
            ? null
            : new self(basename($path), dirname($acoustic[0]), $dictionaries[0], array_values($general)[0] ?? null);
    }

    /** @return non-empty-list<string> voices of the synthesiser that say its words: English is spoken in more than one way */
    public function voices(): array
    {
        return $this->isEnglish() ? array_values(array_unique([$this->language, 'en-us', 'en-gb'])) : [$this->language];
    }

    /** Whether numbers, slates and calls are those of this language. */
    public function isEnglish(): bool
    {
        return str_starts_with($this->language, 'en');
    }
}
