<?php

declare(strict_types=1);

// A store that is too busy for the first requests, as S3 says it (503, SlowDown), and keeps what it is sent afterwards. Run by php -S with
// the folder in BUSY_FOLDER; how many it sends away stands in its file `busy`.

$folder = (string) getenv('BUSY_FOLDER');
$left = (int) file_get_contents("$folder/busy");
if ($left > 0) {
    file_put_contents("$folder/busy", (string) ($left - 1));
    http_response_code(503);
    header('Content-Type: application/xml');
    echo '<?xml version="1.0"?><Error><Code>SlowDown</Code><Message>Please reduce your request rate.</Message></Error>';

    return true;
}
$kept = $folder . '/' . hash('xxh64', (string) parse_url((string) $_SERVER['REQUEST_URI'], PHP_URL_PATH));
if ($_SERVER['REQUEST_METHOD'] === 'PUT') {
    $body = (string) file_get_contents('php://input');
    file_put_contents($kept, $body);
    header('ETag: "' . md5($body) . '"');

    return true;
}
if (!is_file($kept)) {
    http_response_code(404);

    return true;
}
header('Last-Modified: ' . gmdate('D, d M Y H:i:s', (int) filemtime($kept)) . ' GMT');
header('Content-Length: ' . filesize($kept));
if ($_SERVER['REQUEST_METHOD'] === 'GET') {
    readfile($kept);
}

return true;
