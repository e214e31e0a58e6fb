<?php

declare(strict_types=1);

namespace Tests\App\Bins;

use App\Domain\Footage\MediaFile;
use App\Domain\Footage\MediaFolder;
use App\Models\Bin;
use App\Models\BinItem;
use App\Models\Clip;
use App\Models\Production;
use App\Models\Role;
use App\Models\User;
use Database\Factories\ClipFactory;
use Database\Factories\ProductionFactory;
use Database\Factories\ShootDayFactory;
use Tests\App\TestCase;
use Tests\App\Words\SaysWords;

final class LibraryTest extends TestCase
{
    use SaysWords;

    private Production $library;

    private Clip $cue;

    private Clip $camera;

    private User $user;

    protected function setUp(): void
    {
        parent::setUp();
        $this->library = ProductionFactory::new()->createOne();
        $own = [
            'production_id' => $this->library->id,
            'shoot_day_id' => ShootDayFactory::new()->createOne(['production_id' => $this->library->id])->id,
        ];
        $this->cue = ClipFactory::new()
            ->named('concertina')
            ->ran(0, 10)
            ->createOne($own + ['kind' => 'sound', 'import_kind' => 'music'])
            ->refresh();
        $this->camera = ClipFactory::new()
            ->named('A001C001')
            ->createOne($own + ['import_kind' => null])
            ->refresh();
        $this->user = $this->person();
        $this->actingAs($this->user);
    }

    private function share(bool $on = true): void
    {
        $admin = $this->person(Role::Admin, false);
        $this->library->users()->attach($admin);
        $this->actingAs($admin)
            ->putJson("/api/productions/{$this->library->ulid}/settings/library", ['is_library' => $on])
            ->assertOk();
        $this->actingAs($this->user);
    }

    /** @return list<string> names of what the bins show of it */
    private function seen(): array
    {
        return array_column($this->getJson($this->at('bins/library%3Amusic/items'))->assertOk()->json('rows'), 'name');
    }

    public function test_imports_of_a_library_are_seen_by_others_and_nothing_else_of_it_is(): void
    {
        self::assertSame([], $this->seen());
        $this->getJson($this->at("clips/{$this->cue->ulid}"))->assertStatus(404);
        $this->share();
        self::assertSame(['concertina'], $this->seen());
        self::assertContains('library', array_column($this->getJson($this->at('bins'))->json('groups'), 'key'));
        $this->getJson($this->at("clips/{$this->cue->ulid}"))->assertOk()->assertJsonPath('library', $this->library->name);
        $this->getJson($this->at("clips/{$this->cue->ulid}/playlist"))->assertOk();
        $this->getJson($this->at("clips/{$this->camera->ulid}"))->assertStatus(404);
        $this->getJson("/api/productions/{$this->library->ulid}")->assertStatus(404);
        $this->share(false);
        self::assertSame([], $this->seen());
    }

    public function test_nothing_of_a_library_is_changed_from_elsewhere(): void
    {
        $this->share();
        $at = $this->at("clips/{$this->cue->ulid}");
        $this->putJson("$at/marks", ['in_ticks' => 1, 'out_ticks' => 2])->assertStatus(404);
        $this->postJson("$at/markers", ['name' => 'x', 'in_ticks' => 1])->assertStatus(404);
        $this->postJson("$at/subclips", ['name' => 'x', 'in_ticks' => 1, 'out_ticks' => 2])->assertStatus(404);
        $this->postJson("$at/media")->assertStatus(404);
        $this->postJson($this->at('away'), ['clips' => [$this->cue->ulid], 'seen' => 9])->assertStatus(404);
        self::assertSame(['import_kind' => 'music'], $this->cue->refresh()->only('import_kind'));
        $this->postJson($this->at('device'), ['clips' => [$this->cue->ulid], 'import_kind' => 'stock']);
        self::assertSame('music', $this->cue->refresh()->import_kind);
    }

    public function test_what_is_put_into_a_bin_becomes_a_clip_of_ones_own_on_the_same_media_once(): void
    {
        $this->share();
        file_put_contents(MediaFolder::of($this->cue)->write(MediaFile::Peaks), 'peaks');
        $bin = Bin::query()->create(['production_id' => $this->production->id, 'name' => 'For the edit']);
        $other = Bin::query()->create(['production_id' => $this->production->id, 'name' => 'Temp']);
        $this->postJson($this->at("bins/$bin->ulid/items"), ['refs' => ["clip:{$this->cue->ulid}"], 'from' => null])->assertOk();
        $this->postJson($this->at("bins/$other->ulid/items"), ['refs' => ["clip:{$this->cue->ulid}"], 'from' => null])->assertOk();
        $own = Clip::query()->where('production_id', $this->production->id)->sole();
        self::assertSame([$own->id, $own->id], BinItem::query()->orderBy('id')->pluck('clip_id')->all());
        self::assertSame(['concertina', 'music', $this->cue->duration_ticks], [$own->name, $own->import_kind, $own->duration_ticks]);
        self::assertTrue(MediaFolder::of($own)->has(MediaFile::Peaks));
        $this->postJson($this->at("clips/$own->ulid/markers"), ['name' => 'here', 'in_ticks' => 1])->assertStatus(201);
        self::assertSame(0, $this->cue->markers()->count(), 'the library has none of it');
        $this->share(false);
        $this->getJson($this->at("clips/$own->ulid"))->assertOk();
    }

    public function test_only_whoever_manages_a_production_shares_it(): void
    {
        $this->library->users()->attach($this->user);
        $this->putJson("/api/productions/{$this->library->ulid}/settings/library", ['is_library' => true])->assertStatus(403);
        self::assertFalse((bool) $this->library->refresh()->is_library);
    }

    public function test_what_is_said_in_a_clip_of_a_library_is_read_and_played_where_nobody_speaks(): void
    {
        $this->share();
        $this->say($this->cue, [[1, 'Row the boat ashore.', null]]);
        $this->catalogueSilence($this->cue, 10);
        $words = $this->getJson($this->at("clips/{$this->cue->ulid}/words"))->assertOk()->assertJsonCount(1, 'sources.0.passages');
        $sound = $words->json('sources.0.clip');
        $this->getJson($this->at("clips/{$this->cue->ulid}/words/around?sound=$sound&start=0&end=705600000"))->assertOk();
        $this->patchJson($this->at("clips/{$this->cue->ulid}/passages/{$words->json('sources.0.passages.0.id')}"), [
            'from' => 0,
            'was' => ['Row'],
            'text' => 'Roll',
        ])->assertNotFound();
    }
}
