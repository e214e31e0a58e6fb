<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

/** There is no room for the work now. It waits and is tried again by itself; the message says what it waits for. */
final class NoRoom extends \RuntimeException {}
