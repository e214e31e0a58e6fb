<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

/** Reads cuts as the server has them. */
trait CutReading
{
    /** @return array<string, mixed> an answer below the production */
    private function asked(string $path): array
    {
        return (array) $this->jsAsync(
            'const [path, done] = arguments; const production = location.pathname.split("/")[1];' .
                'fetch(`/api/productions/${production}/${path}`).then((answer) => answer.json()).then(done)',
            20,
            $path,
        );
    }

    /** @return array<string, list<array<string, mixed>>> items by the names of the tracks on which something lies */
    private function items(string $sequence): array
    {
        $found = [];
        foreach ($this->asked("sequences/$sequence")['value']['tracks'] as $track) {
            if ($track['items'] !== []) {
                $found[$track['name']] = $track['items'];
            }
        }

        return $found;
    }

    /** @return string what the page's address names so */
    private function opened(string $name): string
    {
        parse_str((string) parse_url((string) $this->js('return location.href'), PHP_URL_QUERY), $query);

        return (string) $query[$name];
    }
}
