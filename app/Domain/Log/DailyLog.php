<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Domain\Footage\TakeLengths;
use App\Domain\Points\OpenPoints;
use App\Models\Card;
use App\Models\CardCopy;
use App\Models\Scene;
use App\Models\ShootDay;
use App\Support\Clock;
use App\Support\Pdf;
use Cartella\Core\Exchange\CsvWriter;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Slate\SlateOrder;
use Illuminate\Support\Facades\DB;

/** A day on one page: its scenes with setups, takes, circled takes and minutes, its cards, and what is missing. */
final class DailyLog
{
    /** What is missing beyond this is counted, so that the page stays one. */
    private const MISSING_LIMIT = 12;

    public function __construct(private readonly OpenPoints $points) {}

    public function csv(ShootDay $day): string
    {
        $facts = $this->facts($day);
        $rows = [];
        foreach ($facts['scenes'] as $scene) {
            $rows[] = [
                'scene',
                $scene['scene'],
                $scene['heading'],
                implode(' ', $scene['setups']),
                $scene['takes'],
                $scene['circled'],
                $scene['running'],
                '',
                '',
            ];
        }
        foreach ($facts['cards'] as $card) {
            $rows[] = ['card', $card['roll'], $card['device'], '', $card['clips'], '', $card['running'], $card['bytes'], $card['state']];
        }
        foreach ($facts['missing'] as $point) {
            $rows[] = ['missing', $point['title'], $point['evidence'], '', '', '', '', '', ''];
        }

        return CsvWriter::write(['What', 'Name', 'Note', 'Setups', 'Takes or clips', 'Circled', 'Running', 'Bytes', 'Custody'], $rows);
    }

    public function pdf(ShootDay $day): string
    {
        $facts = $this->facts($day);

        return Pdf::of(
            'daily',
            $facts + [
                'day' => $day,
                'production' => $day->production,
                'shown' => array_slice($facts['missing'], 0, self::MISSING_LIMIT),
                'more' => max(0, count($facts['missing']) - self::MISSING_LIMIT),
            ],
            'portrait',
        );
    }

    /**
     * @return array{scenes: list<array<string, mixed>>, cards: list<array<string, mixed>>, missing: list<array{title: string,
     *     evidence: string}>, takes: int, setups: int, circled: int, running: string}
     */
    public function facts(ShootDay $day): array
    {
        $takes = DB::table('takes')
            ->where('takes.shoot_day_id', $day->id)
            ->leftJoinSub(TakeLengths::pictures(), 'shot', 'shot.take_id', '=', 'takes.id')
            ->orderBy('takes.sort_key')
            ->get(['takes.scene', 'takes.setup', 'takes.status', 'shot.longest']);
        $headings = Scene::query()->where('production_id', $day->production_id)->pluck('heading', 'name');
        $scenes = $takes
            ->groupBy('scene')
            ->sortBy(static fn($own, $scene): string => SlateOrder::key((string) $scene, 1))
            ->map(
                static fn($own, $scene): array => [
                    'scene' => (string) $scene,
                    'heading' => (string) ($headings[$scene] ?? ''),
                    'setups' => $own->pluck('setup')->unique()->values()->all(),
                    'takes' => $own->count(),
                    // A take is as long as its longest camera ran.
                    'circled' => $own->where('status', TakeStatus::Circled->value)->count(),
                    'running' => Clock::time((int) $own->sum('longest')),
                ],
            )
            ->values()
            ->all();
        $cards = Card::query()
            ->with(['device', 'copies'])
            ->withCount('clips')
            ->withSum(['clips' => static fn($query) => $query->whereIn('kind', ['picture', 'sound'])], 'duration_ticks')
            ->where('shoot_day_id', $day->id)
            ->orderBy('roll')
            ->get()
            ->map(
                static fn(Card $card): array => [
                    'roll' => $card->roll,
                    'device' => $card->device?->title() ?? 'Imports',
                    'clips' => $card->clips_count,
                    'running' => Clock::time((int) $card->clips_sum_duration_ticks),
                    'bytes' => $card->size_bytes,
                    'state' => match (true) {
                        $card->copies->contains(static fn(CardCopy $copy): bool => !$copy->isWhole()) => 'a copy is not as it was',
                        $card->released_at !== null => 'released',
                        $card->isSafe() => 'verified twice',
                        default => "$card->verified_files of $card->files files safe",
                    },
                ],
            )
            ->all();

        return [
            'scenes' => $scenes,
            'cards' => $cards,
            'missing' => array_map(
                static fn($point): array => ['title' => $point->title, 'evidence' => $point->evidence],
                $this->points->of($day),
            ),
            'takes' => $takes->count(),
            'setups' => $takes->unique('setup')->count(),
            'circled' => $takes->where('status', TakeStatus::Circled->value)->count(),
            'running' => Clock::time((int) $takes->sum('longest')),
        ];
    }
}
