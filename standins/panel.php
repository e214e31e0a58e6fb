<?php

declare(strict_types=1);

// The stand-in bench as a small page of its own, for `php -S`: insert and eject cards, fill and pull a volume.

require __DIR__ . '/src/CardBench.php';
require __DIR__ . '/src/SpecialCards.php';

use Cartella\Standins\CardBench;
use Cartella\Standins\SpecialCards;

$deny = static function (string $why): never {
    http_response_code(403);
    exit($why);
};
// Reached by its own name only: a page of another site that points a name of its own here is turned away.
$port = (string) ($_SERVER['SERVER_PORT'] ?? '');
if (!in_array($_SERVER['HTTP_HOST'] ?? '', ["127.0.0.1:$port", "localhost:$port"], true)) {
    $deny('This is the stand-in bench of another address.');
}
$token = (string) getenv('CARTELLA_PANEL_TOKEN');
if ($token === '' || !hash_equals($token, (string) ($_GET['token'] ?? ($_COOKIE['panel'] ?? '')))) {
    $deny('Open the stand-in bench from the desk, or by the address that the start command prints.');
}
if (isset($_GET['token'])) {
    setcookie('panel', $token, ['httponly' => true, 'samesite' => 'Strict', 'path' => '/']);
}
// The demo's own folders and nothing else, whatever the settings name; each carries the demo's mark.
$var = getenv('CARTELLA_VAR') ?: dirname(__DIR__) . '/var';
foreach ([$var . '/volumes', $var . '/stores/shuttle-1'] as $folder) {
    if (
        is_dir($folder) &&
        !is_file($folder . '/.cartella-made') &&
        !is_dir(dirname($folder) . '/.' . basename($folder) . '-pulled-out') &&
        !is_file($folder . '/.cartella-store')
    ) {
        $deny('The demo is not built here.');
    }
}
$bench = new CardBench(dirname(__DIR__) . '/var/demo/cards', $var . '/volumes', $var . '/stores/shuttle-1');
$text = static fn(string $value): string => htmlspecialchars($value, ENT_QUOTES | ENT_SUBSTITUTE);
$trouble = null;
if ($_SERVER['REQUEST_METHOD'] === 'POST') {
    // Only this page itself may post: another site's would carry its own origin.
    $origin = parse_url((string) ($_SERVER['HTTP_ORIGIN'] ?? ''));
    if (($origin['host'] ?? '') . ':' . ($origin['port'] ?? '') !== $_SERVER['HTTP_HOST']) {
        $deny('Only the panel itself may do that.');
    }
    try {
        $card = (string) ($_POST['card'] ?? '');
        match ($_POST['do'] ?? '') {
            'insert' => $bench->insert($card),
            'eject' => $bench->eject($card),
            'there', 'full', 'gone' => $bench->setStore($_POST['do']),
            default => throw new InvalidArgumentException('There is no such button.'),
        };
        header('Location: /', true, 303);
        exit();
    } catch (InvalidArgumentException $refusal) {
        $trouble = $refusal->getMessage();
    }
}
$in = $bench->inserted();
$rows = [];
foreach ($bench->cards() as $card) {
    $rows[] = [$card, $card, 'A card of Low Water'];
}
foreach (SpecialCards::CARDS as $key => [$volume, $what]) {
    $rows[] = [$key, $volume, $what];
}
$button = static fn(string $do, string $card, string $label): string => sprintf(
    '<form method="post"><input type="hidden" name="card" value="%s"><button name="do" value="%s" aria-label="%s %s">%s</button></form>',
    $text($card),
    $do,
    $label,
    $text($card),
    $label,
);
$state = $bench->storeState();
?>
<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Stand-in bench</title>
<style>
body { margin: 0 auto; max-width: 760px; padding: 24px 18px; background: #fffdf6; color: #22282f;
  font: 14px/1.45 "DejaVu Sans", system-ui, sans-serif; }
h1 { font-size: 20px; margin: 0; } p { color: #5d6570; margin: 4px 0 16px; }
ul { list-style: none; margin: 0; padding: 0; }
li { display: grid; grid-template-columns: 110px 1fr auto; gap: 12px; align-items: center;
  padding: 7px 0; border-bottom: 1px solid #e3d9c3; }
b { font-family: "DejaVu Sans Mono", monospace; } small { color: #5d6570; font-size: 12px; }
form { display: inline; }
button { font: inherit; padding: 5px 14px; border: 1px solid #b9ac90; border-radius: 5px; background: #fff; cursor: pointer; }
.in { color: #1f6f5c; font-weight: 600; font-size: 12px; }
.trouble { background: #f7dbd6; color: #8c2b20; padding: 9px 12px; border-radius: 5px; }
section { margin-top: 22px; display: flex; gap: 10px; align-items: center; flex-wrap: wrap; }
</style>
</head>
<body>
<h1>Stand-in bench</h1>
<p>In the place of card readers: what is inserted here shows up on the bench of the desk within two seconds.</p>
<?php if ($trouble !== null) { ?><div class="trouble" role="alert"><?= $text($trouble) ?></div><?php } ?>
<ul>
<?php foreach ($rows as [$key, $volume, $what]) {
    $isIn = in_array($volume, $in, true); ?>
<li><b><?= $text($volume) ?></b><span><?= $text($what) ?> <?= $isIn ? '<span class="in">in the reader</span>' : '' ?></span><?= $isIn
    ? $button('eject', $volume, 'Eject')
    : $button('insert', $key, 'Insert') ?></li>
<?php
} ?>
</ul>
<section>
<span>Shuttle 1 is <b><?= ['there' => 'there', 'full' => 'nearly full', 'gone' => 'pulled out'][$state] ?></b>.</span>
<?= ($state !== 'there' ? $button('there', '', 'Put it back') : '') .
    ($state !== 'full' ? $button('full', '', 'Swap for a full one') : '') .
    ($state !== 'gone' ? $button('gone', '', 'Pull it out') : '') ?>
</section>
</body>
</html>
