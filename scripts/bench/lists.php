<?php

declare(strict_types=1);

// p50 and p95 of the slate-sheet and bin requests with 20 000 clips, against the smallest request of the same server.

$base = getenv('APP_URL');
$jar = tempnam(sys_get_temp_dir(), 'cartella');
$curl = curl_init();
curl_setopt_array($curl, [CURLOPT_RETURNTRANSFER => true, CURLOPT_COOKIEJAR => $jar, CURLOPT_COOKIEFILE => $jar, CURLOPT_ENCODING => 'gzip']);
$ask = static function (string $path, ?array $body = null) use ($curl, $base): array {
    $headers = ['Accept: application/json', 'Content-Type: application/json'];
    foreach (curl_getinfo($curl, CURLINFO_COOKIELIST) as $cookie) {
        if (str_contains($cookie, 'XSRF-TOKEN')) {
            $headers[] = 'X-XSRF-TOKEN: '.urldecode(explode("\t", $cookie)[6]);
        }
    }
    curl_setopt_array($curl, [CURLOPT_URL => $base.$path, CURLOPT_HTTPHEADER => $headers, CURLOPT_CUSTOMREQUEST => $body === null ? 'GET' : 'POST', CURLOPT_POSTFIELDS => $body === null ? null : json_encode($body)]);
    $begin = hrtime(true);
    $text = (string) curl_exec($curl);
    $time = (hrtime(true) - $begin) / 1e6;
    if (curl_getinfo($curl, CURLINFO_HTTP_CODE) !== 200) {
        exit("$path answered ".curl_getinfo($curl, CURLINFO_HTTP_CODE).": $text\n");
    }

    return [$time, json_decode($text, true), strlen($text)];
};
$ask('/api/session');
[, $session] = $ask('/api/session', ['email' => 'bench@lowwater.test', 'password' => 'tide-mill']);
$production = $session['productions'][0]['ulid'];
[, $facts] = $ask("/api/productions/$production");
$day = $facts['days'][0]['ulid'];
$measure = static function (string $path) use ($ask): array {
    $times = [];
    for ($round = 0; $round < 45; $round++) {
        [$time, , $bytes] = $ask($path);
        if ($round >= 5) {
            $times[] = $time; // the first few warm the caches
        }
    }
    sort($times);

    return [$times[intdiv(count($times), 2)], $times[(int) (0.95 * count($times))], $bytes];
};
[$floor] = $measure('/api/session');
foreach (['slate sheet, 2 000 takes' => "days/$day/log", 'bin, first page' => 'bins/scene:1/clips', 'bin, a late page' => 'bins/scene:1/clips?from=3000', 'tree of bins' => 'bins'] as $title => $path) {
    [$p50, $p95, $bytes] = $measure("/api/productions/$production/$path");
    printf("lists    %-26s p50 %6.1f ms (%.1fx), p95 %6.1f ms (%.1fx), %d kB\n", $title, $p50, $p50 / $floor, $p95, $p95 / $floor, intdiv($bytes, 1000));
}
printf("lists    floor: the session request, p50 %.1f ms\n", $floor);
unlink($jar);
