<?php

declare(strict_types=1);

// A client of the bench's own server that can sign in: ($path, $body) gives [milliseconds, answer, bytes]. Until the limit it asks again
// while the server is away. With `$more` there are another method, headers, milliseconds after which it hangs up, and answers that are
// given back instead of thrown, as [milliseconds, answer, bytes, status]; 0 is none.

$base = getenv('APP_URL');
$jar = tempnam(sys_get_temp_dir(), 'cartella');
$curl = curl_init();
curl_setopt_array($curl, [
    CURLOPT_RETURNTRANSFER => true,
    CURLOPT_COOKIEJAR => $jar,
    CURLOPT_COOKIEFILE => $jar,
    CURLOPT_ENCODING => 'gzip',
]);

$ask = static function (string $path, ?array $body = null, int $waitSeconds = 0, array $more = []) use ($curl, $base): array {
    $deadline = time() + $waitSeconds;
    do {
        // A file goes as a form does.
        $isForm = array_filter($body ?? [], static fn(mixed $value): bool => $value instanceof CURLFile) !== [];
        $headers = ['Accept: application/json', ...$isForm ? [] : ['Content-Type: application/json']];
        foreach (curl_getinfo($curl, CURLINFO_COOKIELIST) as $cookie) {
            if (str_contains($cookie, 'XSRF-TOKEN')) {
                $headers[] = 'X-XSRF-TOKEN: ' . urldecode(explode("\t", $cookie)[6]);
            }
        }
        curl_setopt_array($curl, [
            CURLOPT_URL => $base . $path,
            CURLOPT_HTTPHEADER => [...$headers, ...$more['headers'] ?? []],
            CURLOPT_CUSTOMREQUEST => $more['method'] ?? ($body === null ? 'GET' : 'POST'),
            CURLOPT_TIMEOUT_MS => $more['hang_up'] ?? 30_000,
            CURLOPT_POSTFIELDS => $body === null || $isForm ? $body : json_encode($body),
        ]);
        $begin = hrtime(true);
        $text = (string) curl_exec($curl);
        $time = (hrtime(true) - $begin) / 1e6;
        $status = curl_getinfo($curl, CURLINFO_HTTP_CODE);
        if (($status >= 200 && $status < 300) || in_array($status, $more['takes'] ?? [], true)) {
            return [$time, json_decode($text, true), strlen($text), $status];
        }
        usleep(200_000);
    } while (time() < $deadline && ($status === 0 || $status >= 500));
    throw new RuntimeException("$path answered $status: $text");
};
$ask('/api/session');

return $ask;
