<?php

declare(strict_types=1);

// Finds the core's classes for its programs, which need no Composer.

spl_autoload_register(static function (string $class): void {
    $file = __DIR__ . '/../src/' . strtr(substr($class, 14), '\\', '/') . '.php';
    if (str_starts_with($class, 'Cartella\\Core\\') && is_file($file)) {
        require $file;
    }
});
