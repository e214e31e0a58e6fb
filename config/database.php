<?php

declare(strict_types=1);

// Beside the framework's own settings: a server that follows the database's and is only read, and Redis through a client that is
// installed with the desk.
return [
    'connections' => [
        'replica' => [
            'driver' => 'mariadb',
            'host' => env('DB_REPLICA_HOST'),
            'port' => env('DB_REPLICA_PORT', '3306'),
            'database' => env('DB_DATABASE', 'cartella'),
            'username' => env('DB_REPLICA_USERNAME', env('DB_USERNAME', 'cartella')),
            'password' => env('DB_REPLICA_PASSWORD', env('DB_PASSWORD', '')),
            'charset' => 'utf8mb4',
            'collation' => 'utf8mb4_unicode_ci',
            'prefix' => '',
            'strict' => true,
            // One that is gone must not hold an answer up.
            'options' => [PDO::ATTR_TIMEOUT => 2],
        ],
    ],
    'redis' => [
        'client' => env('REDIS_CLIENT', 'predis'),
        'options' => ['prefix' => env('REDIS_PREFIX', 'cartella:')],
        'default' => [
            'url' => env('REDIS_URL'),
            'scheme' => env('REDIS_SCHEME', 'tcp'),
            'host' => env('REDIS_HOST', '127.0.0.1'),
            'username' => env('REDIS_USERNAME'),
            'password' => env('REDIS_PASSWORD'),
            'port' => env('REDIS_PORT', '6379'),
            'database' => env('REDIS_DB', '0'),
            // A worker waits for work on its connection.
            'read_write_timeout' => 0,
        ],
        'cache' => [
            'url' => env('REDIS_URL'),
            'scheme' => env('REDIS_SCHEME', 'tcp'),
            'host' => env('REDIS_HOST', '127.0.0.1'),
            'username' => env('REDIS_USERNAME'),
            'password' => env('REDIS_PASSWORD'),
            'port' => env('REDIS_PORT', '6379'),
            'database' => env('REDIS_CACHE_DB', '1'),
        ],
    ],
];
