<?php

declare(strict_types=1);

namespace App\Domain\Reports;

use App\Domain\Tasks\TaskKinds;

/** The kinds of task of this domain. */
final class ReportsTasks
{
    public static function register(TaskKinds $kinds): void
    {
        $kinds->register('report', ReportJob::class, 'import', isQuiet: true);
    }
}
