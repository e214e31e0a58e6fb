<?php

declare(strict_types=1);

namespace Tests\App\Cards;

use App\Domain\Footage\MediaFolder;
use App\Domain\Reports\ReportJob;
use App\Domain\Reports\Reports;
use App\Models\Card;
use App\Models\CardFile;
use App\Models\Task;
use Illuminate\Support\Facades\Queue;
use Tests\App\TestCase;

final class CardReportTest extends TestCase
{
    private Card $card;

    protected function setUp(): void
    {
        parent::setUp();
        $this->card = Card::query()->create([
            'production_id' => $this->production->id,
            'shoot_day_id' => $this->day->id,
            'roll' => 'A003',
            'volume' => 'A003',
            'state' => 'verified',
            'device_id' => $this->devices['A']->id,
            'files' => 1,
        ]);
        $clip = $this->clip(
            'A003C005',
            'A',
            36_000,
            take: $this->take('3A', 4, ['status' => 'circled', 'notes' => '=Mara <b>turns</b>']),
            more: ['card_id' => $this->card->id],
        );
        $this->clip(
            'S001T01',
            'S',
            36_000,
            30,
            more: ['channels' => [['index' => 1, 'name' => 'Boom', 'function' => null]], 'sample_rate' => 48_000],
        );
        CardFile::query()->create([
            'card_id' => $this->card->id,
            'path' => $clip->path,
            'path_hash' => $clip->path_hash,
            'size_bytes' => 4711,
            'algorithm' => 'xxh128',
            'hash' => 'abc',
            'copies' => 2,
        ]);
        mkdir(MediaFolder::of($clip)->folder(), 0777, true);
        imagejpeg(imagecreatetruecolor(32, 18), MediaFolder::of($clip)->folder() . '/thumb-2.jpg');
        $this->as();
    }

    public function test_the_camera_report_lists_clips_with_slate_and_proof(): void
    {
        $answer = $this->get($this->at("cards/{$this->card->ulid}/report/camera.csv"))->assertOk();
        $lines = array_map(str_getcsv(...), explode("\r\n", trim((string) $answer->getContent())));
        $row = array_combine($lines[0], $lines[1]);
        self::assertSame(
            ['A003', 'A003C005', '3A', '4', 'circled', '10:00:00:00', '4711', 'xxh128 abc', '2'],
            [
                $row['Roll'],
                $row['Clip'],
                $row['Setup'],
                $row['Take'],
                $row['Status'],
                $row['Start timecode'],
                $row['Bytes'],
                $row['Checksum'],
                $row['Copies'],
            ],
        );
        self::assertSame("'=Mara <b>turns</b>", $row['Notes'], 'no cell is a formula');
        self::assertStringContainsString('camera report A003.csv', (string) $answer->headers->get('Content-Disposition'));
    }

    public function test_a_pdf_is_made_by_a_worker_and_handed_out_once_to_who_asked(): void
    {
        Queue::fake();
        $this->get($this->onDay('report/camera.pdf'))->assertStatus(202)->assertHeader('Refresh');
        $this->get($this->onDay('report/camera.pdf'))->assertStatus(202);
        $task = Task::query()->where('kind', 'report')->sole();
        (new ReportJob($task->id))->handle(app(Reports::class));
        $asker = auth()->user();
        $this->as();
        $this->get($this->onDay('report/camera.pdf'))->assertStatus(202);
        $this->actingAs($asker)->get($this->onDay('report/camera.pdf'))->assertOk()->assertHeader('Content-Type', 'application/pdf');
        self::assertSame([], glob($this->folder . '/reports/*.pdf'));
        $this->get($this->onDay('report/camera.pdf'))->assertStatus(202);
    }

    public function test_the_sound_report_of_the_day_names_the_tracks(): void
    {
        $lines = array_map(
            str_getcsv(...),
            explode("\r\n", trim((string) $this->get($this->onDay('report/sound.csv'))->assertOk()->getContent())),
        );
        self::assertCount(2, $lines);
        self::assertSame(
            ['S001T01', 'Boom'],
            [array_combine($lines[0], $lines[1])['Clip'], array_combine($lines[0], $lines[1])['Track names']],
        );
    }

    public function test_the_pdf_carries_the_pictures_and_takes_text_as_text(): void
    {
        $bytes = (string) $this->get($this->onDay('report/camera.pdf'))
            ->assertOk()
            ->assertHeader('Content-Type', 'application/pdf')
            ->getContent();
        self::assertStringStartsWith('%PDF-', $bytes);
        self::assertMatchesRegularExpression('~/Subtype ?/Image~', $bytes);
        self::assertStringContainsString(
            '&lt;b&gt;turns&lt;/b&gt;',
            view('report', [
                'title' => 'x',
                'kind' => 'camera',
                'production' => $this->production,
                'day' => $this->day,
                'card' => null,
                'running' => '',
                'bytes' => 0,
                'circled' => 0,
                'rows' => [
                    [
                        'picture' => null,
                        'roll' => '',
                        'device' => '',
                        'clip' => '',
                        'checksum' => '',
                        'setup' => '',
                        'start' => '',
                        'length' => '',
                        'width' => 1,
                        'height' => 1,
                        'rate' => '',
                        'notes' => '<b>turns</b>',
                        'problems' => '',
                        'copies' => 2,
                    ],
                ],
            ])->render(),
        );
    }
}
