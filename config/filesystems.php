<?php

declare(strict_types=1);

return [
    'default' => env('FILESYSTEM_DISK', 'local'),
    'disks' => [
        // Media goes out through nginx after a policy check, never by the framework's own file routes.
        'local' => ['driver' => 'local', 'root' => storage_path('app'), 'serve' => false, 'throw' => true],
        's3' => [
            'driver' => 's3', 'key' => env('AWS_ACCESS_KEY_ID'), 'secret' => env('AWS_SECRET_ACCESS_KEY'), 'region' => env('AWS_DEFAULT_REGION'),
            'bucket' => env('AWS_BUCKET'), 'endpoint' => env('AWS_ENDPOINT'), 'use_path_style_endpoint' => env('AWS_USE_PATH_STYLE_ENDPOINT', true), 'throw' => true,
        ],
    ],
    'links' => [],
];
