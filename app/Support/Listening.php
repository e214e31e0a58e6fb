<?php

declare(strict_types=1);

namespace App\Support;

/** From where the desk can be reached. */
final class Listening
{
    /** Whether only this machine reaches it. */
    public static function isLocal(): bool
    {
        $host = (string) config('cartella.web_host');

        return $host === 'localhost' || $host === '::1' || preg_match('/\A127\.\d{1,3}\.\d{1,3}\.\d{1,3}\z/', $host) === 1;
    }
}
