<?php

declare(strict_types=1);

namespace App\Domain\Tasks;

/** The worker was asked to stop; the task goes on with the next one. No try of its is lost. */
final class TaskPaused extends \RuntimeException {}
