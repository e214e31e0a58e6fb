<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Cards\ReaderWatch;
use Illuminate\Console\Command;

/** Watches the readers until it is stopped: a pass every two seconds. */
final class WatchReaders extends Command
{
    private const EVERY_SECONDS = 2;

    /** Ends by itself after this many passes, to be started again with fresh memory. */
    private const PASSES = 1800;

    protected $signature = 'cartella:watch {--once : one pass only}';

    protected $description = 'Watches for cards that are put in and taken out';

    public function handle(ReaderWatch $watch): int
    {
        for ($pass = 0; $pass < self::PASSES; $pass++) {
            $watch->beat();
            $watch->pass(onVolume: $watch->beat(...));
            if ($this->option('once')) {
                break;
            }
            sleep(self::EVERY_SECONDS);
        }

        return self::SUCCESS;
    }
}
