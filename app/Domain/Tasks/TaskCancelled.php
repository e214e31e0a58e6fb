<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

/** Somebody asked for the running task to stop; thrown from its progress. */
final class TaskCancelled extends \RuntimeException {}
