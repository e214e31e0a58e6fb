<?php

declare(strict_types=1);

// What a bench measures in its page: a script of js/ after js/page.js, run once for each thing with what is given; it answers by `done`.

use Facebook\WebDriver\Remote\RemoteWebDriver;

return static function (RemoteWebDriver $driver, string $name): callable {
    $script = file_get_contents(__DIR__ . '/js/page.js') . file_get_contents(__DIR__ . "/js/$name.js");

    return static function (string $what, array $given = [], int $seconds = 300) use ($driver, $script): array {
        $driver->manage()->timeouts()->setScriptTimeout($seconds);
        $answer = $driver->executeAsyncScript(
            "const [what, given, done] = arguments; const fail = (trouble) => done({ trouble: String(trouble?.stack ?? trouble) });\n" .
                "(async () => {\n$script\n})().catch(fail)",
            [$what, (object) $given],
        );

        return isset($answer['trouble']) ? throw new RuntimeException("$what: $answer[trouble]") : $answer;
    };
};
