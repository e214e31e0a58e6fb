<?php

declare(strict_types=1);

use Cartella\Core\Time\FrameRate;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

// Reels become sequences, which every other cut will be, too. Each statement asks first whether an earlier, killed run made it.
return new class extends Migration {
    /** The label of a reel's first frame, one hour, in ticks. */
    private const HOUR = 3600 * 705_600_000;

    public function up(): void
    {
        $this->make('sequences', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('production_id')->constrained()->cascadeOnDelete();
            $table->foreignId('shoot_day_id')->nullable()->constrained()->nullOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->string('kind', 12);
            $table->string('name', 160);
            $table->json('recipe')->nullable();
            // What the recipe was carried out on; another one means that it would give something else.
            $table->char('made_of', 64)->nullable();
            $table->longText('content');
            // The step that the content holds, and the newest one: what lies between is carried out when it is read.
            $table->unsignedInteger('content_step')->default(0);
            $table->unsignedInteger('step')->default(0);
            $table->unsignedInteger('items')->default(0);
            $table->bigInteger('running_ticks')->default(0);
            $table->timestamp('removed_at')->nullable();
            $table->timestamps();
            $table->index(['production_id', 'kind', 'removed_at']);
        });
        $this->make('sequence_steps', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('sequence_id')->constrained()->cascadeOnDelete();
            $table->unsignedInteger('number');
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->string('label', 160);
            // As it was asked for; what it changed; and what leads back from there.
            $table->longText('operation');
            $table->longText('forward');
            $table->longText('inverse');
            $table->unsignedBigInteger('takes_back')->nullable();
            $table->timestamp('created_at')->nullable();
            $table->unique(['sequence_id', 'number']);
            $table->index('takes_back');
        });
        $this->make('sequence_versions', static function (Blueprint $table): void {
            $table->id();
            $table->char('ulid', 26)->unique();
            $table->foreignId('sequence_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->string('name', 120);
            $table->unsignedInteger('step');
            $table->longText('content');
            $table->timestamps();
        });
        $this->make('sequence_uses', static function (Blueprint $table): void {
            $table->foreignId('sequence_id')->constrained()->cascadeOnDelete();
            $table->foreignId('clip_id')->constrained()->cascadeOnDelete();
            $table->unsignedInteger('times');
            $table->primary(['sequence_id', 'clip_id']);
        });
        if (Schema::hasTable('reels')) {
            foreach (DB::table('reels')->lazyById(50) as $reel) {
                $this->move($reel);
            }
            // A reel that somebody made or removed before is a reel now; its pieces are in it.
            foreach (DB::table('changes')->where('rows', 'like', '%"reel%')->lazyById(200) as $change) {
                $rows = array_values(
                    array_filter(json_decode($change->rows, true), static fn(array $row): bool => !str_starts_with($row['table'], 'reel')),
                );
                $rows === []
                    ? DB::table('changes')->where('id', $change->id)->delete()
                    : DB::table('changes')
                        ->where('id', $change->id)
                        ->update(['rows' => json_encode($rows, JSON_THROW_ON_ERROR)]);
            }
            Schema::dropIfExists('reel_items');
            Schema::dropIfExists('reels');
        }
    }

    private function make(string $table, callable $columns): void
    {
        if (!Schema::hasTable($table)) {
            Schema::create($table, $columns);
        }
    }

    private function move(object $reel): void
    {
        if (DB::table('sequences')->where('ulid', $reel->ulid)->exists()) {
            return;
        }
        $production = DB::table('productions')->where('id', $reel->production_id)->first();
        $rate = self::rate($production) ?? throw new RuntimeException('A production without a frame rate.');
        $frame = $rate->ticksPerFrame();
        $at = 0;
        $items = $sources = $uses = [];
        $rows = DB::table('reel_items')
            ->join('clips', 'clips.id', '=', 'reel_items.clip_id')
            ->join('takes', 'takes.id', '=', 'reel_items.take_id')
            ->leftJoin('cards', 'cards.id', '=', 'clips.card_id')
            ->where('reel_id', $reel->id)
            ->orderBy('position')
            ->get([
                'reel_items.*',
                'clips.ulid AS clip',
                'clips.name',
                'clips.duration_ticks',
                'clips.start_ticks',
                'clips.rate_num',
                'clips.rate_den',
                'clips.drop_frame',
                'cards.roll',
                'takes.ulid AS take_ulid',
                'takes.setup',
                'takes.take',
                'takes.part',
            ]);
        foreach ($rows as $row) {
            $length = intdiv($row->out_ticks - $row->in_ticks, $frame) * $frame;
            if ($length < 1 || $row->out_ticks > $row->duration_ticks) {
                continue;
            }
            $number = array_search($row->clip, array_column($sources, 'id'), true);
            if ($number === false) {
                $number = count($sources);
                $sources[] = [
                    'id' => $row->clip,
                    'name' => $row->name,
                    'path' => null,
                    'reel' => $row->roll,
                    'start_ticks' => (int) $row->start_ticks,
                    'duration_ticks' => (int) $row->duration_ticks,
                    'rate' => (self::rate($row) ?? $rate)->label(),
                ];
            }
            $items[] = [
                $number,
                (int) $row->in_ticks,
                $length,
                $at,
                "$row->setup/$row->take$row->part $row->name",
                ['metadata' => ['take' => $row->take_ulid]],
            ];
            $uses[$row->clip_id] = ($uses[$row->clip_id] ?? 0) + 1;
            $at += $length;
        }
        DB::transaction(static function () use ($reel, $rate, $items, $sources, $uses, $at): void {
            $id = DB::table('sequences')->insertGetId([
                'ulid' => $reel->ulid,
                'production_id' => $reel->production_id,
                'shoot_day_id' => $reel->shoot_day_id,
                'user_id' => $reel->user_id,
                'kind' => 'reel',
                'name' => $reel->name,
                'recipe' => json_encode(['circled_only' => (bool) $reel->circled_only]),
                'content' => json_encode(
                    [
                        'sources' => $sources,
                        'tracks' => [['items' => $items, 'kind' => 'picture', 'name' => 'V', 'locked' => false, 'enabled' => true]],
                        'title' => $reel->name,
                        'rate' => $rate->label(),
                        'start_ticks' => self::HOUR,
                        'metadata' => (object) [],
                    ],
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
                ),
                'items' => count($items),
                'running_ticks' => $at,
                'created_at' => $reel->created_at,
                'updated_at' => $reel->updated_at,
            ]);
            foreach ($uses as $clip => $times) {
                DB::table('sequence_uses')->insert(['sequence_id' => $id, 'clip_id' => $clip, 'times' => $times]);
            }
        });
    }

    private static function rate(object $row): ?FrameRate
    {
        return $row->rate_num === null ? null : FrameRate::ofFraction((int) $row->rate_num, (int) $row->rate_den, (bool) $row->drop_frame);
    }
};
