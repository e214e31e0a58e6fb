<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

// "Notes" were three things: words on a take, words spoken at a screening, and a script supervisor's file. Each statement asks
// first whether an earlier, killed run made it.
return new class extends Migration {
    private const NAMES = ['notes' => 'screening_notes', 'note_files' => 'script_note_files', 'note_layouts' => 'script_note_layouts'];

    public function up(): void
    {
        $this->rename(self::NAMES);
    }

    public function down(): void
    {
        $this->rename(array_flip(self::NAMES));
    }

    /** @param  array<string, string>  $names */
    private function rename(array $names): void
    {
        foreach ($names as $old => $new) {
            if (!Schema::hasTable($new)) {
                Schema::rename($old, $new);
            }
            // Steps that were taken before keep being taken back.
            DB::table('change_rows')
                ->where('table', $old)
                ->update(['table' => $new]);
        }
        foreach (
            DB::table('changes')->where('rows', 'like', '%"notes"%')->orWhere('rows', 'like', '%"screening_notes"%')->lazyById(200)
            as $change
        ) {
            $rows = json_decode($change->rows, true);
            foreach ($rows as $at => $row) {
                $rows[$at]['table'] = $names[$row['table']] ?? $row['table'];
            }
            DB::table('changes')
                ->where('id', $change->id)
                ->update(['rows' => json_encode($rows, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE)]);
        }
    }
};
