<?php

declare(strict_types=1);

namespace App\Console;

use App\Domain\Log\ScriptNotes\ReadNotes;
use App\Models\Production;
use App\Models\ScriptNoteFile;
use App\Models\User;
use App\Support\Folders;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\File;

/** Reads a table of so many rows against the bench's log and into it, and prints time and memory for `./cartella bench log`. */
final class BenchNotes extends Command
{
    protected $signature = 'cartella:bench-notes {rows}';

    protected $description = 'Measure what a long table of notes costs';

    public function handle(ReadNotes $read): int
    {
        $production = Production::query()->where('name', 'Bench')->firstOrFail();
        $day = $production->days()->where('number', 1)->firstOrFail();
        $rows = (int) $this->argument('rows');
        File::ensureDirectoryExists(Folders::var('notes'));
        $out = fopen(Folders::var('notes/bench'), 'w') ?: throw new \RuntimeException('The table cannot be written.');
        fwrite($out, "Setup,Take,Size,Remarks\n");
        for ($n = 0; $n < $rows; $n++) {
            $scene = 1 + intdiv($n % 2000, 200);
            fwrite(
                $out,
                sprintf(
                    "%d%s,%s,CU,remark %d of %d\n",
                    $scene,
                    ['', 'A', 'B', 'C', 'D', 'E', 'F', 'G', 'H', 'J'][intdiv($n, 20) % 10],
                    $n % 1000 === 999 ? 'x' : ($n % 20) + 1,
                    $n,
                    $rows,
                ),
            );
        }
        fclose($out);
        $file = ScriptNoteFile::query()->create([
            'production_id' => $production->id,
            'shoot_day_id' => $day->id,
            'name' => "bench-$rows.csv",
            'path' => 'notes/bench',
            'layout' => ['heading' => 0, 'columns' => ['0' => 'setup', '1' => 'take', '2' => 'size', '3' => 'notes']],
        ]);
        $before = memory_get_peak_usage() / 1e6;
        $begin = hrtime(true);
        $report = $read->preview($file, static fn(int $rows): null => null);
        $looked = (hrtime(true) - $begin) / 1e9;
        $begin = hrtime(true);
        $read->apply($file, User::query()->where('email', 'bench@lowwater.test')->firstOrFail(), static fn(int $rows): null => null);
        $this->line(
            sprintf(
                'log      notes of %6d rows: looked at in %5.1f s, brought in in %6.1f s, peak memory %.1f MB (%.1f ' .
                    'before), %d cells left out',
                $rows,
                $looked,
                (hrtime(true) - $begin) / 1e9,
                memory_get_peak_usage() / 1e6,
                $before,
                $report['fault_count'],
            ),
        );

        return self::SUCCESS;
    }
}
