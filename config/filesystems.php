<?php

declare(strict_types=1);

// A bucket that all machines of the desk reach; what lies in it begins with the name of the disk.
$bucket = static fn(string $root): array => [
    'driver' => 's3',
    'key' => env('S3_KEY'),
    'secret' => env('S3_SECRET'),
    'region' => env('S3_REGION', 'us-east-1'),
    'bucket' => env('S3_BUCKET', 'cartella'),
    'endpoint' => env('S3_ENDPOINT'),
    'use_path_style_endpoint' => (bool) env('S3_PATH_STYLE', true),
    'root' => $root,
    'throw' => true,
    // A worker waits more than a minute for a store that is busy or starts again; a page does not.
    'retries' => ['mode' => 'standard', 'max_attempts' => PHP_SAPI === 'cli' ? 10 : 2],
    'http' => ['connect_timeout' => 3, 'read_timeout' => 60, 'timeout' => PHP_SAPI === 'cli' ? 600 : 20],
];
$folder = static fn(string $root): array => ['driver' => 'local', 'root' => $root, 'serve' => false, 'throw' => true];
$var = env('CARTELLA_VAR', base_path('var'));

return [
    'default' => env('FILESYSTEM_DISK', 'local'),
    'disks' => [
        // Media goes out through nginx after a policy check, never by the framework's own file routes.
        'local' => $folder(storage_path('app')),
        // What pages show and hear of clips.
        'media' => env('CARTELLA_MEDIA', 'local') === 's3' ? $bucket('media') : $folder("$var/proxies"),
        // What the editing team is handed.
        'packages' => env('CARTELLA_PACKAGES', 'local') === 's3' ? $bucket('packages') : $folder(env('CARTELLA_INBOX', "$var/inbox")),
    ],
    'links' => [],
];
