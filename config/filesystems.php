<?php

declare(strict_types=1);

return [
    'default' => env('FILESYSTEM_DISK', 'local'),
    'disks' => [
        // Media goes out through nginx after a policy check, never by the framework's own file routes.
        'local' => ['driver' => 'local', 'root' => storage_path('app'), 'serve' => false, 'throw' => true],
        // What pages show and hear of clips; another driver here moves it off this machine.
        'media' => ['driver' => 'local', 'root' => env('CARTELLA_VAR', base_path('var')) . '/proxies', 'serve' => false, 'throw' => true],
    ],
    'links' => [],
];
