<?php

declare(strict_types=1);

// A stand-in for a service that finds words, for `php -S`: it speaks the contract of docs/words-service.md and answers from the demo's
// truth, so that what it says can be compared. It listens to nothing.

require __DIR__ . '/src/TranscriptionDesk.php';

use Cartella\Standins\TranscriptionDesk;

$var = getenv('CARTELLA_VAR') ?: dirname(__DIR__) . '/var';
$cards = getenv('CARTELLA_CARD_LIBRARY') ?: dirname(__DIR__) . '/var/demo/cards';
$desk = new TranscriptionDesk(dirname($cards) . '/truth.json', $var . '/transcription', getenv('CARTELLA_TRANSCRIPTION_TOKEN') ?: null);
$desk->answer(
    $_SERVER['REQUEST_METHOD'] ?? 'GET',
    (string) parse_url((string) ($_SERVER['REQUEST_URI'] ?? '/'), PHP_URL_PATH),
    (string) ($_SERVER['HTTP_AUTHORIZATION'] ?? ''),
    $_POST,
);
