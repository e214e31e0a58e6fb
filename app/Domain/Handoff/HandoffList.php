<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Handoff;
use App\Models\HandoffQuestion;
use App\Models\Production;
use App\Models\StoredSequence;
use Illuminate\Support\Collection;

/** The hand-offs of a production, newest first. */
final class HandoffList
{
    /** Far more than a production hands off, or cuts. */
    private const MOST = 5000;

    private const COLUMNS = [
        'id',
        'ulid',
        'production_id',
        'user_id',
        'number',
        'title',
        'folder',
        'state',
        'chosen',
        'summary',
        'query',
        'answered_by',
        'answered_at',
        'delivered_at',
        'created_at',
    ];

    private const WITH = ['user', 'answeredBy', 'questions.user', 'questions.answeredBy', 'questions.take', 'questions.clip'];

    /** @return list<array<string, mixed>> */
    public function of(Production $production): array
    {
        $newest = self::newest($production->id);

        return Handoff::query()
            // Without what lay in each, which is long.
            ->select(self::COLUMNS)
            ->with(self::WITH)
            ->where('production_id', $production->id)
            ->latest('number')
            ->limit(self::MOST)
            ->get()
            ->map(static fn(Handoff $handoff): array => self::row($handoff, $newest))
            ->all();
    }

    /** @return array<string, mixed> */
    public function one(Handoff $handoff): array
    {
        return self::row($handoff->load(self::WITH), self::newest($handoff->production_id));
    }

    /** How the last package of a production was made: its names and folders are the production's. */
    public function usual(Production $production): PackageChoice
    {
        $last = Handoff::query()
            ->where('production_id', $production->id)
            ->latest('number')
            ->first(['id', 'chosen']);

        return PackageChoice::fromArray($last->chosen ?? []);
    }

    /** @return Collection<int, StoredSequence> what can go beside days and bins, the newest first */
    public function cuts(Production $production): Collection
    {
        return StoredSequence::query()
            ->where('production_id', $production->id)
            ->whereNull('removed_at')
            ->latest('id')
            ->limit(self::MOST)
            ->get(['id', 'ulid', 'name', 'kind']);
    }

    /** How the newest package stands, in a few words; null where there is none. */
    public static function newestWords(Production $production): ?string
    {
        $newest = Handoff::query()
            ->where('production_id', $production->id)
            ->latest('number')
            ->first(['number', 'state']);

        return $newest === null ? null : sprintf('%d %s', $newest->number, $newest->state === 'queried' ? 'asked' : $newest->state);
    }

    private static function newest(int $production): int
    {
        return (int) Handoff::query()->where('production_id', $production)->max('number');
    }

    /** @return array<string, mixed> */
    private static function row(Handoff $handoff, int $newest): array
    {
        return [
            'ulid' => $handoff->ulid,
            'number' => $handoff->number,
            'title' => $handoff->title,
            'folder' => $handoff->folder,
            'state' => $handoff->state,
            'summary' => $handoff->summary,
            'made_by' => $handoff->user?->name,
            'made_at' => $handoff->created_at?->toIso8601String(),
            'delivered_at' => $handoff->delivered_at?->toIso8601String(),
            'answered_by' => $handoff->answeredBy?->name,
            'answered_at' => $handoff->answered_at?->toIso8601String(),
            'query' => $handoff->query,
            'waived' => PackageChoice::fromArray($handoff->chosen)->waived,
            'questions' => self::questions($handoff),
            'newest' => $handoff->number === $newest,
        ];
    }

    /** @return list<array<string, mixed>> */
    private static function questions(Handoff $handoff): array
    {
        return $handoff->questions
            ->map(
                static fn(HandoffQuestion $one): array => [
                    'ulid' => $one->ulid,
                    'question' => $one->question,
                    'about' => $one->take?->label() ?? ($one->clip?->title() ?? $one->path),
                    'take' => $one->take?->ulid,
                    'clip' => $one->clip?->ulid,
                    'path' => $one->path,
                    'by' => $one->user?->name,
                    'at' => $one->created_at?->toIso8601String(),
                    'answer' => $one->answer,
                    'answered_by' => $one->answeredBy?->name,
                ],
            )
            ->all();
    }
}
