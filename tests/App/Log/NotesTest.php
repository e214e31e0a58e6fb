<?php

declare(strict_types=1);

namespace Tests\App\Log;

use App\Models\Take;
use Illuminate\Http\UploadedFile;
use Illuminate\Testing\TestResponse;
use OpenSpout\Common\Entity\Cell;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use Tests\App\TestCase;

/** Script notes and reports of others, brought into the log. */
final class NotesTest extends TestCase
{
    private function bring(string $content, string $name = 'notes.csv'): TestResponse
    {
        return $this->post(
            $this->onDay('notes'),
            ['file' => UploadedFile::fake()->createWithContent($name, $content)],
            ['Accept' => 'application/json'],
        );
    }

    /** @return array<string, mixed> the report of its preview */
    private function preview(TestResponse $brought): array
    {
        $brought->assertCreated();
        $file = $this->getJson($this->at('notes/' . $brought->json('ulid')));
        $this->postJson($this->at('notes/' . $brought->json('ulid') . '/preview'), [
            'heading' => $file->json('heading'),
            'columns' => $file->json('columns'),
        ])->assertStatus(202);

        return $this->getJson($this->at('notes/' . $brought->json('ulid')))->assertOk()->json('report');
    }

    private function apply(TestResponse $brought): TestResponse
    {
        return $this->postJson($this->at('notes/' . $brought->json('ulid') . '/apply'));
    }

    public function test_a_table_is_mapped_previewed_applied_and_taken_back_in_one_step(): void
    {
        $this->take('3', 1, ['description' => 'Mara unlocks', 'set_by' => ['description' => ['by' => 'person', 'at' => 1]]]);
        $this->take('3A', 1);
        $this->as();
        $brought = $this->bring(
            "Scene,Setup,Take,Action,Circled\n3,3,1,Mara unlocks,\n3,A,1,Mara turns,x\n3,A,2,Mara turns,\n,,,tea break,\n",
        );
        $report = $this->preview($brought);
        self::assertSame(['new' => 2, 'same' => 1, 'different' => 0, 'unmatched' => 1], $report['counts']);
        self::assertSame(2, Take::query()->count(), 'a preview changes nothing');
        $this->apply($brought)->assertStatus(202);
        self::assertSame(
            ['Mara turns', 'circled'],
            [
                Take::query()->where('setup', '3A')->where('take', 1)->sole()->description,
                Take::query()->where('setup', '3A')->where('take', 1)->sole()->status,
            ],
        );
        self::assertSame(3, Take::query()->count());
        $this->apply($brought)->assertStatus(422)->assertJsonPath('code', 'notes.state');
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Bring in notes.csv');
        self::assertSame([2, ''], [Take::query()->count(), Take::query()->where('setup', '3A')->sole()->description]);
        $this->postJson($this->at('redo'));
        self::assertSame(3, Take::query()->count());
    }

    public function test_real_life_dirt_is_read(): void
    {
        $this->as();
        $csv = mb_convert_encoding(
            "LOW WATER;;;;\r\n;Slate;;;\r\nDatum;Szene;Setup;Take;Bemerkung\r\n05.10.2026;12;12 A;T3 " .
                "(circled);Für Mara\r\n;;;4;weiter\r\n;;;;\r\n;12;B;1/2;beide\r\nDatum;Szene;Setup;Take;Bemerkung\r\n" .
                ";12;B;3 PU;\r\n",
            'Windows-1252',
            'UTF-8',
        );
        $brought = $this->bring($csv);
        self::assertSame(
            [2, ['day', 'scene', 'setup', 'take', 'notes']],
            [$brought->json('heading'), array_values($brought->json('columns'))],
        );
        self::assertSame([], $this->preview($brought)['faults']);
        $this->apply($brought);
        $takes = Take::query()->orderBy('sort_key')->get();
        self::assertSame(
            ['12A/3', '12A/4', '12B/1', '12B/2', '12B/3'],
            $takes->map(static fn(Take $take): string => $take->label())->all(),
        );
        self::assertSame(['circled', 'Für Mara', true], [$takes[0]->status, $takes[0]->notes, $takes[4]->is_pickup]);
    }

    public function test_a_workbook_with_real_dates_and_numbers_is_read(): void
    {
        $path = $this->folder . '/notes.xlsx';
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($path);
        foreach (
            [['Camera report'], ['Day', 'Slate', 'Take', 'Size'], [1, '3A', 2, 'CU'], [1, '3A', new \DateTimeImmutable('2026-02-01'), 'CU']]
            as $row
        ) {
            $writer->addRow(
                WriterEntityFactory::createRow(
                    array_map(
                        static fn($value): Cell => WriterEntityFactory::createCell(
                            $value,
                            $value instanceof \DateTimeInterface
                                ? (new \OpenSpout\Writer\Common\Creator\Style\StyleBuilder())->setFormat('d mmm')->build()
                                : null,
                        ),
                        $row,
                    ),
                ),
            );
        }
        $writer->close();
        $this->as();
        $brought = $this->bring((string) file_get_contents($path), 'notes.xlsx');
        $report = $this->preview($brought);
        self::assertSame(['row' => 4, 'column' => 'C', 'what' => 'take'], array_diff_key($report['faults'][0], ['why' => '']));
        self::assertStringContainsString('made the date', $report['faults'][0]['why']);
        $this->apply($brought);
        self::assertSame(['3A/2', 'Close'], [Take::query()->sole()->label(), Take::query()->sole()->size]);
    }

    public function test_rows_without_a_slate_find_their_take_by_time_then_by_clip(): void
    {
        $take = $this->take('3', 1);
        $this->clip('A001C001', 'A', 36_000, 20, $take);
        $this->clip('A001C002', 'A', 37_000, 20);
        $this->as();
        $report = $this->preview(
            $brought = $this->bring(
                "TC In\tClip\tNotes\n10:00:05:12\t\tgull\n36007.5\t\twind\n\tA001C001.mov\tflare\n\tA001C002\tfog\n11:30:00:00\t\tnobody\n",
                'report.tsv',
            ),
        );
        self::assertSame(2, $report['counts']['unmatched']);
        self::assertSame(['A001C002 has no slate yet.', 'No take ran at that time.'], array_column($report['samples']['unmatched'], 'why'));
        $this->apply($brought);
        self::assertSame("gull\nwind\nflare", $take->refresh()->notes);
    }

    public function test_a_clip_without_a_slate_joins_the_take_that_the_notes_give_it(): void
    {
        $clip = $this->clip('A001C006', 'A', 0);
        $this->as();
        $this->preview($brought = $this->bring("Clip;Setup;Take\nA001C006;3B;1\n"));
        $this->apply($brought);
        self::assertSame('3B/1', $clip->refresh()->take?->label());
        $this->postJson($this->at('undo'));
        self::assertNull($clip->refresh()->take?->id);
    }

    public function test_a_fault_names_row_and_column_and_the_rest_comes_in(): void
    {
        $this->as();
        $report = $this->preview($brought = $this->bring("Setup,Take,TC,Notes\n3I,1,,bad\n3,2,noon,good\n3,x,,worse\n"));
        self::assertSame(
            [[2, 'A'], [3, 'C'], [4, 'B']],
            array_map(static fn(array $fault): array => [$fault['row'], $fault['column']], $report['faults']),
        );
        $this->apply($brought);
        self::assertSame(['3/2', 'good'], [Take::query()->sole()->label(), Take::query()->sole()->notes]);
    }

    public function test_a_layout_that_came_before_is_remembered(): void
    {
        $this->as();
        $first = $this->bring("Bild,Nr,Was\n3A,1,dreht\n");
        self::assertFalse($first->json('is_known'));
        $this->postJson($this->at('notes/' . $first->json('ulid') . '/preview'), [
            'heading' => 0,
            'columns' => ['0' => 'setup', '1' => 'take', '2' => 'description'],
        ])->assertStatus(202);
        $this->apply($first)->assertStatus(202);
        self::assertSame('dreht', Take::query()->sole()->description);
        // With a heading that is recognised, so that the layout can be found again.
        $second = $this->bring("Scene,Take,Was\n3A,1,dreht\n");
        $this->postJson($this->at('notes/' . $second->json('ulid') . '/preview'), [
            'heading' => 0,
            'columns' => ['0' => 'setup', '1' => 'take', '2' => 'description'],
        ]);
        $this->apply($second);
        $third = $this->bring("Scene,Take,Was\n3A,2,dreht\n");
        self::assertSame([true, ['setup', 'take', 'description']], [$third->json('is_known'), array_values($third->json('columns'))]);
    }

    public function test_what_is_no_table_is_refused_in_words(): void
    {
        $this->as();
        $this->bring("\x7FELF\0\0", 'x.csv')->assertStatus(422)->assertJsonPath('code', 'notes.kind');
        $this->bring('', 'x.csv')->assertStatus(422);
        $zip = new \ZipArchive();
        $zip->open($this->folder . '/bomb.xlsx', \ZipArchive::CREATE);
        $zip->addFromString('xl/workbook.xml', '<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]><workbook>&e;</workbook>');
        $zip->close();
        $this->bring((string) file_get_contents($this->folder . '/bomb.xlsx'), 'bomb.xlsx')
            ->assertStatus(201)
            ->assertJsonPath('task.state', 'failed')
            ->assertJsonPath('task.message', 'The workbook declares XML entities.')
            ->assertJsonPath('rows', []);
    }

    public function test_a_workbook_that_unpacks_to_more_than_it_says_is_left_before_it_fills_anything(): void
    {
        $zip = new \ZipArchive();
        $zip->open($this->folder . '/bomb.xlsx', \ZipArchive::CREATE);
        $zip->addFromString('xl/workbook.xml', '<workbook/>');
        file_put_contents($this->folder . '/zeros', '');
        $zeros = fopen($this->folder . '/zeros', 'r+');
        ftruncate($zeros, 1_200_000_000);
        $zip->addFile($this->folder . '/zeros', 'xl/worksheets/sheet1.xml');
        $zip->close();
        // The directory at its end says that every part has a byte.
        $bytes = (string) file_get_contents($this->folder . '/bomb.xlsx');
        $bytes = str_replace(pack('V', 1_200_000_000), pack('V', 1), $bytes);
        $this->as();
        $this->bring($bytes, 'bomb.xlsx')->assertStatus(201)->assertJsonPath('task.state', 'failed');
        self::assertLessThan(400e6, memory_get_peak_usage());
    }

    /** Brings a file in whole. */
    private function bringIn(string $content, string $name): TestResponse
    {
        $this->preview($brought = $this->bring($content, $name));
        $this->apply($brought)->assertStatus(202);

        return $brought;
    }

    public function test_corrected_notes_under_a_new_name_replace_their_older_words(): void
    {
        foreach ([1, 2, 3] as $n) {
            $this->clip("A001C00$n", 'A', 60 * $n, take: $this->take('3', $n));
        }
        $this->as();
        $this->bringIn("Setup,Take,Size,Notes\n3,1,Wide,gull in frame\n3,2,Wide,soft\n3,3,Close,boom in\n", 'low-water-day1.csv');
        // A person adds words of their own to the second one, and the recorder to the third.
        $second = Take::query()->where('take', 2)->sole();
        $this->patchJson($this->at("takes/$second->ulid"), [
            'changes' => ['notes' => ['was' => 'soft', 'now' => "soft\nask Rosa"]],
        ])->assertOk();
        $report = $this->preview(
            $brought = $this->bring(
                "Setup,Take,Size,Notes\n3,1,Wide,gull in frame\n3,2,Wide,soft at the end\n3,3,Medium,\n",
                'script dept 2.csv',
            ),
        );
        self::assertSame('low-water-day1.csv', $report['corrects']);
        self::assertSame(['new' => 0, 'same' => 1, 'different' => 2, 'unmatched' => 0], $report['counts']);
        $this->apply($brought);
        self::assertSame(
            [['Wide', 'gull in frame'], ['Wide', "soft at the end\nask Rosa"], ['Medium', '']],
            Take::query()->orderBy('take')->get()->map(static fn(Take $take): array => [$take->size, $take->notes])->all(),
        );
        self::assertSame(
            [],
            array_filter(
                array_column($this->getJson($this->onDay('sheet'))->json('points'), 'key'),
                static fn(string $key): bool => str_starts_with($key, 'differ.'),
            ),
        );
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Bring in script dept 2.csv');
        self::assertSame(
            [['Wide', 'gull in frame'], ['Wide', "soft\nask Rosa"], ['Close', 'boom in']],
            Take::query()->orderBy('take')->get()->map(static fn(Take $take): array => [$take->size, $take->notes])->all(),
        );
    }

    public function test_a_file_of_other_words_adds_and_is_asked_about_unless_a_person_says_that_it_corrects(): void
    {
        $this->clip('A001C001', 'A', 0, take: ($take = $this->take('3', 1)));
        $this->as();
        $this->bringIn("Setup,Take,Size,Notes\n3,1,Wide,gull in frame\n", 'script.csv');
        $brought = $this->bring("Setup,Take,Size,Notes\n3,1,Close,lens 32\n", 'camera.csv');
        self::assertNull($this->preview($brought)['corrects']);
        $file = $this->getJson($this->at('notes/' . $brought->json('ulid')));
        self::assertSame(['script.csv'], $file->json('others'));
        $this->postJson($this->at('notes/' . $brought->json('ulid') . '/preview'), [
            'heading' => 0,
            'columns' => $file->json('columns'),
            'corrects' => 'script.csv',
        ])->assertStatus(202);
        self::assertSame('script.csv', $this->getJson($this->at('notes/' . $brought->json('ulid')))->json('report.corrects'));
        $this->preview($brought);
        $this->apply($brought);
        self::assertSame(['Close', "gull in frame\nlens 32"], [$take->refresh()->size, $take->notes]);
        self::assertSame('Wide', $this->getJson($this->onDay('log'))->json('takes.0.disputes.0.said.0.value'));
    }

    public function test_a_file_that_speaks_of_a_take_in_several_rows_is_corrected_whole(): void
    {
        $this->clip('A001C001', 'A', 0, take: ($take = $this->take('3', 1)));
        $this->as();
        $this->bringIn("Setup,Take,Notes\n3,1,gull\n3,1,wind\n3,1,flare\n", 'notes v1.csv');
        self::assertSame("gull\nwind\nflare", $take->refresh()->notes);
        $this->bringIn("Setup,Take,Notes\n3,1,gull\n3,1,rain\n", 'notes v2.csv');
        self::assertSame("gull\nrain", $take->refresh()->notes);
        $this->bringIn("Setup,Take,Notes\n3,1,gull\n3,1,rain\n3,1,sun\n", 'notes v2.csv');
        self::assertSame("gull\nrain\nsun", $take->refresh()->notes);
    }

    public function test_words_that_another_file_says_too_stay_when_one_of_them_is_corrected(): void
    {
        $this->clip('A001C001', 'A', 0, take: ($take = $this->take('3', 1)));
        $this->as();
        $this->bringIn("Setup,Take,Notes\n3,1,boom in\n", 'script v1.csv');
        $this->preview($camera = $this->bring("Setup,Take,Lens,Notes\n3,1,32,boom in\n", 'camera.csv'));
        $this->postJson($this->at('notes/' . $camera->json('ulid') . '/preview'), [
            'heading' => 0,
            'columns' => ['0' => 'setup', '1' => 'take', '3' => 'notes'],
            'corrects' => null,
        ]);
        $this->apply($camera);
        $this->bringIn("Setup,Take,Notes\n3,1,\n", 'script v2.csv');
        self::assertSame('boom in', $take->refresh()->notes);
    }

    public function test_two_files_of_one_name_are_two_sources(): void
    {
        $this->clip('A001C001', 'A', 0, take: $this->take('3', 1));
        $this->clip('A001C002', 'A', 60, take: $this->take('3', 2));
        $this->as();
        $this->bringIn("Setup,Take,Size\n3,1,Wide\n", 'report.csv');
        $this->bringIn("Setup,Take,Size\n3,2,Close\n", 'report.csv');
        self::assertSame(['report.csv', 'report.csv (2)'], array_column($this->getJson($this->onDay('log'))->json('takes'), 'said_by'));
    }

    public function test_any_sheet_of_a_workbook_can_be_chosen(): void
    {
        $path = $this->folder . '/book.xlsx';
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($path);
        $add = static fn(array $cells) => $writer->addRow(
            WriterEntityFactory::createRow(array_map(WriterEntityFactory::createCell(...), $cells)),
        );
        $writer->getCurrentSheet()->setName('Cover');
        $add(['Low Water']);
        $writer->addNewSheetAndMakeItCurrent()->setName('Camera A');
        $add(['Setup', 'Take', 'Size']);
        $add(['3', '1', 'Wide']);
        $writer->addNewSheetAndMakeItCurrent()->setName('Camera B');
        $add(['Setup', 'Take']);
        $add(['3', '2']);
        $writer->addNewSheetAndMakeItCurrent()->setName('Empty');
        $writer->close();
        $this->as();
        $brought = $this->bring((string) file_get_contents($path), 'book.xlsx');
        $ulid = $brought->json('ulid');
        $file = $this->getJson($this->at("notes/$ulid"));
        self::assertSame(
            [['Cover', 'Camera A', 'Camera B', 'Empty'], 1],
            [$file->json('sheets'), $file->json('sheet')],
            'the one that says most',
        );
        $this->postJson($this->at("notes/$ulid/sheet"), ['sheet' => 3])->assertStatus(202);
        self::assertSame(
            [3, []],
            [$this->getJson($this->at("notes/$ulid"))->json('sheet'), $this->getJson($this->at("notes/$ulid"))->json('rows')],
        );
        $this->postJson($this->at("notes/$ulid/sheet"), ['sheet' => 9])->assertStatus(422);
        $this->postJson($this->at("notes/$ulid/sheet"), ['sheet' => 2])->assertStatus(202);
        $this->preview($brought);
        $this->apply($brought)->assertStatus(202);
        self::assertSame('3/2', Take::query()->sole()->label());
    }

    public function test_every_cell_that_was_left_out_can_be_read_and_kept(): void
    {
        $this->as();
        $rows = implode('', array_map(static fn(int $n): string => "3,$n,noon $n\n", range(1, 750)));
        $report = $this->preview($brought = $this->bring("Setup,Take,TC\n$rows"));
        self::assertSame([750, 200], [$report['fault_count'], count($report['faults'])]);
        $ulid = $brought->json('ulid');
        $page = $this->getJson($this->at("notes/$ulid/faults?from=200"))->assertOk()->json('faults');
        self::assertSame([202, 500], [$page[0]['row'], count($page)]);
        $csv = explode("\r\n", trim((string) $this->get($this->at("notes/$ulid/faults.csv"))->assertOk()->getContent()));
        self::assertSame([751, 'C751,time,"""noon 750"" is not a time."'], [count($csv), $csv[750]]);
    }

    public function test_a_killed_run_goes_on_in_the_same_step(): void
    {
        $this->as();
        $brought = $this->bring(
            "Setup,Take,Notes\n" . implode('', array_map(static fn(int $n): string => "3,$n,note $n\n", range(1, 450))),
        );
        $this->preview($brought);
        $file = \App\Models\ScriptNoteFile::query()->sole();
        $calls = 0;
        try {
            app(\App\Domain\Log\ScriptNotes\ReadNotes::class)->apply(
                $file,
                \App\Models\User::query()->latest('id')->first(),
                static function () use (&$calls): void {
                    if (++$calls === 2) {
                        throw new \RuntimeException('killed');
                    }
                },
            );
            self::fail('It was not killed.');
        } catch (\RuntimeException) {
            self::assertSame(400, Take::query()->count());
        }
        $this->apply($brought)->assertStatus(202);
        self::assertSame(450, Take::query()->count());
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Bring in notes.csv');
        self::assertSame(0, Take::query()->count());
    }

    public function test_notes_that_change_nothing_are_no_step_to_take_back(): void
    {
        $take = $this->take('3', 1);
        $this->as()->patchJson($this->at("takes/$take->ulid"), ['changes' => ['size' => ['was' => '', 'now' => 'Wide']]]);
        $this->preview($brought = $this->bring("Setup,Take,Size\n12I,1,CU\n"));
        $this->apply($brought);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Edit size of 3/1');
    }

    public function test_a_row_of_no_take_says_what_of_its_slate_could_not_be_read(): void
    {
        $this->as();
        $report = $this->preview($this->bring("Setup,Take,Size\n12I,1,CU\n"));
        self::assertSame(['"12I" is not a setup.'], array_column($report['samples']['unmatched'], 'why'));
    }

    public function test_nothing_is_taken_back_while_it_is_still_coming_in(): void
    {
        $this->as();
        $this->preview($brought = $this->bring("Setup,Take\n3,1\n3,2\n"));
        $this->apply($brought);
        \App\Models\ScriptNoteFile::query()->update(['applied_at' => null]);
        \App\Models\Task::query()
            ->latest('id')
            ->first()
            ->update(['ended_at' => null, 'state' => 'running']);
        $this->postJson($this->at('undo'))->assertStatus(422)->assertJsonPath('code', 'undo.busy');
        self::assertSame(2, Take::query()->count());
        \App\Models\Task::query()
            ->latest('id')
            ->first()
            ->update(['ended_at' => now(), 'state' => 'cancelled']);
        $this->postJson($this->at('undo'))->assertJsonPath('label', 'Bring in notes.csv');
        self::assertSame(0, Take::query()->count(), 'what a stopped run has brought in is taken back in one step');
    }
}
