<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Session\DatabaseSessionHandler;
use Illuminate\Support\Carbon;

/**
 * Sessions in the database, written only when they hold something else, or once a minute to say that they are used: a
 * page asks many times a second, and each write waits for the disk.
 */
final class KeptSessions extends DatabaseSessionHandler
{
    /** Seconds by which the moment of last use may lie behind. */
    private const USED_SECONDS = 60;

    /** @var array{id: string, data: string, at: int}|null what was read */
    private ?array $read = null;

    public function read($sessionId): string
    {
        $row = (object) $this->getQuery()->find($sessionId);
        $this->read = null;
        $this->exists = isset($row->payload);
        if (!$this->exists || $this->expired($row)) {
            return '';
        }
        $data = (string) base64_decode((string) $row->payload, true);
        $this->read = ['id' => $sessionId, 'data' => $data, 'at' => (int) $row->last_activity];

        return $data;
    }

    public function write($sessionId, $data): bool
    {
        $known = $this->read;
        $isKept =
            $known !== null &&
            $known['id'] === $sessionId &&
            $known['data'] === $data &&
            $known['at'] > Carbon::now()->getTimestamp() - self::USED_SECONDS;

        // Under another name it is another row, whatever was read before.
        $this->exists = $this->exists && ($known === null || $known['id'] === $sessionId);

        return $isKept || parent::write($sessionId, $data);
    }
}
