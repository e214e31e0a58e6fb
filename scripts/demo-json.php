<?php

declare(strict_types=1);

// What the demo answers, in a form that two versions of Cartella can be compared in: `php scripts/demo-json.php FOLDER [BASE]`
// writes one JSON file for each question, with names in the place of ULIDs and without the times at which rows were made.
// Run it before and after a change that must change nothing, then `diff -r`.

[, $folder, $base] = [...$argv, 'http://127.0.0.1:8010'];
if ($folder === null || (!is_dir($folder) && !mkdir($folder, 0777, true))) {
    fwrite(STDERR, "Usage: php scripts/demo-json.php FOLDER [BASE]\n");
    exit(2);
}

putenv("APP_URL=$base");
$client = require __DIR__ . '/bench/client.php';
$ask = static fn(string $path, ?array $body = null): array => $client("/api/$path", $body)[1];

/** Fields that say when a row was made or its media, or of which process; they differ from one build of the demo to the next. */
const TIMES = [
    'made_at',
    'at',
    'made',
    'media_version',
    'delivered_at',
    'answered_at',
    'verified_at',
    'checked_at',
    'released_at',
    'free_bytes',
    'panel',
    'folder',
    'created_at',
];

/** A clip is called by its file and device, a take by its slate: the same in every build. */
$names = [];
$learn = static function (array $value) use (&$learn, &$names): void {
    $ulid = $value['ulid'] ?? null;
    if (is_string($ulid)) {
        $label = match (true) {
            isset($value['setup']) => "take {$value['setup']}/{$value['take']}" . ($value['part'] ?? ''),
            isset($value['file']) => 'clip ' . ($value['device'] ?? '') . ' ' . $value['file'],
            isset($value['name']) => 'named ' . $value['name'],
            isset($value['number']) => 'number ' . $value['number'],
            default => null,
        };
        if ($label !== null) {
            $names[$ulid] ??= $label;
        }
    }
    foreach ($value as $one) {
        if (is_array($one)) {
            $learn($one);
        }
    }
};
$plain = static function (mixed $value, int|string $key = '') use (&$plain, &$names): mixed {
    if (is_array($value)) {
        foreach (TIMES as $time) {
            unset($value[$time]);
        }
        foreach ($value as $inner => $one) {
            $value[$inner] = $plain($one, $inner);
        }

        return $value;
    }

    return is_string($value)
        ? preg_replace_callback('/\b[0-9a-hjkmnp-tv-z]{26}\b/i', static fn(array $match): string => $names[$match[0]] ?? 'ULID', $value)
        : $value;
};

$session = $ask('session', ['email' => 'rosa@lowwater.test', 'password' => 'tide-mill']);
$production = $session['productions'][0]['ulid'];
$facts = $ask("productions/$production");
$answers = ['production' => $facts, 'bins' => $ask("productions/$production/bins"), 'handoffs' => $ask("productions/$production/handoffs")];
foreach ($facts['days'] as $day) {
    $at = "productions/$production/days/{$day['ulid']}";
    foreach (['log', 'sheet', 'lineup', 'scenes', 'reels', 'tabs', 'cut'] as $what) {
        $answers["day-{$day['number']}-$what"] = $ask("$at/$what");
    }
    foreach ($answers["day-{$day['number']}-reels"]['reels'] as $number => $reel) {
        $answers["day-{$day['number']}-reel-$number"] = $ask("productions/$production/reels/{$reel['ulid']}");
    }
}
foreach ($answers['bins'] as $kind => $bins) {
    foreach ($bins as $bin) {
        $answers['bin-' . preg_replace('/\W+/', '-', $bin['name'])] = $ask(
            "productions/$production/bins/" . rawurlencode($bin['key']) . '/items?from=0&limit=500',
        );
    }
}
$learn($answers);
foreach ($answers as $name => $answer) {
    file_put_contents(
        "$folder/$name.json",
        json_encode($plain($answer), JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES) . "\n",
    );
}
printf("%d answers of %s are in %s.\n", count($answers), $facts['name'], $folder);
unlink($jar);
