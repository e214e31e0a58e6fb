<?php

declare(strict_types=1);

namespace Tests\App\Settings;

use App\Models\Device;
use App\Models\Role;
use App\Models\ShootDay;
use App\Models\Store;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\TestCase;

final class SettingsTest extends TestCase
{
    public function test_a_device_is_added_lettered_by_a_word_and_retired_and_each_is_taken_back(): void
    {
        $ulid = $this->as()
            ->postJson($this->at('settings/devices'), ['letter' => 'Drone', 'kind' => 'other', 'note' => 'from the cliff', 'colour' => 5])
            ->assertStatus(201)
            ->assertJsonPath('lane', 3)
            ->json('ulid');
        $this->postJson($this->at('settings/devices'), ['letter' => 'Drone', 'kind' => 'camera'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'device.taken');
        $this->patchJson($this->at("settings/devices/$ulid"), ['retired' => true])
            ->assertOk()
            ->assertJsonPath('is_retired', true);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Retire device Drone');
        $this->patchJson($this->at("settings/devices/$ulid"), ['kind' => 'phone', 'note' => ''])->assertOk();
        self::assertSame('Phone Drone', Device::query()->where('ulid', $ulid)->sole()->title());
        $this->postJson($this->at('undo'));
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Add device Drone');
        self::assertSame(0, Device::query()->where('ulid', $ulid)->count());
    }

    public function test_a_device_that_gets_another_letter_keeps_it_in_the_takes_it_did_not_roll_on(): void
    {
        $take = $this->take('3', 1, ['absent_devices' => ['B', 'S']]);
        $this->as()
            ->patchJson($this->at('settings/devices/' . $this->devices['B']->ulid), ['letter' => 'H'])
            ->assertOk();
        self::assertSame(['H', 'S'], $take->refresh()->absent_devices);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'B is now H');
        self::assertSame(['B', 'S'], $take->refresh()->absent_devices);
    }

    public function test_a_retired_device_is_suggested_for_no_card(): void
    {
        $this->devices['B']->update(['retired_at' => now()]);
        mkdir($this->folder . '/bench/B007');
        file_put_contents($this->folder . '/bench/B007/clip.mov', 'x');
        $this->as()
            ->getJson($this->onDay('cards'))
            ->assertJsonPath('volumes.0.device', null)
            ->assertJsonPath('volumes.0.ask', 'Nothing says which device recorded it.');
    }

    public function test_imports_become_footage_of_a_device_and_footage_becomes_an_import_and_both_are_taken_back(): void
    {
        $clip = $this->clip('cue', 'A', 0, more: ['device_id' => null, 'import_kind' => 'music']);
        $this->as()
            ->postJson($this->at('device'), ['clips' => [$clip->ulid], 'device' => 'B'])
            ->assertOk()
            ->assertJsonPath('changed', 1);
        self::assertSame(['B', null], [$clip->refresh()->device->letter, $clip->import_kind]);
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame([null, 'music'], [$clip->refresh()->device_id, $clip->import_kind]);
        $this->postJson($this->at('device'), ['clips' => [$clip->ulid], 'import_kind' => 'effects'])->assertOk();
        self::assertSame('effects', $clip->refresh()->import_kind);
        $footage = $this->clip('A001C001', 'A', 0);
        $this->postJson($this->at('device'), ['clips' => [$footage->ulid], 'import_kind' => 'stock'])->assertOk();
        self::assertSame([null, 'stock'], [$footage->refresh()->device_id, $footage->import_kind]);
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(['A', null], [$footage->refresh()->device->letter, $footage->import_kind]);
        $this->postJson($this->at('device'), ['clips' => [$clip->ulid], 'import_kind' => 'nonsense'])->assertStatus(422);
    }

    public function test_a_day_is_corrected_and_removed_only_when_empty(): void
    {
        $second = $this->as()
            ->postJson($this->at('days'), ['date' => '2026-10-06'])
            ->assertStatus(201)
            ->json('ulid');
        $this->patchJson($this->at("days/$second"), ['number' => 1])
            ->assertStatus(422)
            ->assertJsonPath('code', 'day.taken');
        $this->patchJson($this->at("days/$second"), ['number' => 7, 'date' => '2026-10-08', 'unit' => 'Second unit'])
            ->assertOk()
            ->assertJsonPath('number', 7);
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(
            [2, '2026-10-06'],
            [
                ShootDay::query()->where('ulid', $second)->sole()->number,
                ShootDay::query()->where('ulid', $second)->sole()->date->format('Y-m-d'),
            ],
        );
        $this->take('3', 1);
        $this->deleteJson($this->onDay(''))->assertStatus(422)->assertJsonPath('code', 'day.not_empty');
        $this->deleteJson($this->at("days/$second"))->assertOk();
        $this->postJson($this->at('undo'))->assertOk();
        self::assertSame(2, ShootDay::query()->where('production_id', $this->production->id)->count());
    }

    public function test_volumes_are_added_named_ordered_and_retired_by_the_admin_and_carry_a_marker(): void
    {
        mkdir($this->folder . '/three');
        $this->as()
            ->postJson($this->at('settings/stores'), ['name' => 'Three', 'path' => $this->folder . '/three'])
            ->assertForbidden();
        $ulid = $this->as(Role::Admin)
            ->postJson($this->at('settings/stores'), ['name' => 'Three', 'path' => $this->folder . '/three'])
            ->assertStatus(201)
            ->json('ulid');
        $mark = Store::query()->where('ulid', $ulid)->sole()->mark;
        self::assertSame($mark, Store::markIn($this->folder . '/three'));
        $this->postJson($this->at('settings/stores'), ['name' => 'Again', 'path' => $this->folder . '/three/'])
            ->assertStatus(422)
            ->assertJsonPath('code', 'store.there');
        $this->patchJson($this->at("settings/stores/$ulid"), ['position' => 0, 'name' => 'Raid'])
            ->assertOk()
            ->assertJsonPath('stores.0.name', 'Raid');
        $this->patchJson($this->at("settings/stores/$ulid"), ['retired' => true])->assertOk();
        self::assertSame(['One', 'Two'], array_column($this->getJson($this->onDay('cards'))->json('stores'), 'name'));
    }

    /** @return array<string, array{string}> */
    public static function foreignFolders(): array
    {
        return [
            'the whole disk' => ['/'],
            'the system' => ['/etc'],
            'a way up' => ['/tmp/../etc'],
            'the code' => ['CODE'],
            'the readers' => ['BENCH'],
            'nothing' => ['/nowhere/at/all'],
            'half a path' => ['stores'],
        ];
    }

    #[DataProvider('foreignFolders')]
    public function test_a_folder_of_the_system_or_of_the_desk_is_no_volume_for_copies(string $path): void
    {
        $path = strtr($path, ['CODE' => base_path('app'), 'BENCH' => $this->folder . '/bench']);
        $this->as(Role::Admin)
            ->postJson($this->at('settings/stores'), ['name' => 'X', 'path' => $path])
            ->assertStatus(422);
        self::assertFileDoesNotExist(rtrim($path, '/') . '/.cartella-store');
    }

    public function test_a_card_goes_to_the_volumes_that_were_chosen_for_it(): void
    {
        mkdir($this->folder . '/bench/A001');
        file_put_contents($this->folder . '/bench/A001/a.txt', 'x');
        $this->as()
            ->postJson($this->onDay('volumes/A001/offload'), ['roll' => 'A001', 'device' => 'A', 'to' => ['nowhere']])
            ->assertStatus(422)
            ->assertJsonPath('code', 'store.unknown');
        $this->postJson($this->onDay('volumes/A001/offload'), ['roll' => 'A001', 'device' => 'A', 'to' => ['one']])->assertStatus(202);
        $this->getJson($this->onDay('cards'))
            ->assertJsonPath('cards.0.copies.0.store', 'One')
            ->assertJsonCount(1, 'cards.0.copies')
            ->assertJsonPath('cards.0.state', 'verified')
            ->assertJsonPath('cards.0.is_safe', false);
        self::assertStringContainsString(
            'needs a second copy',
            (string) $this->getJson($this->at('tasks'))->json('tasks.1.message') .
                $this->getJson($this->at('tasks'))->json('tasks.0.message'),
        );
    }
}
