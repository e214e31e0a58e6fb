<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Models\Handoff;
use App\Models\HandoffQuestion;
use App\Models\User;
use App\Support\Audit;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Illuminate\Support\Facades\DB;

/** Questions of the editing team about a package and what lies in it; answered by an assistant, the answer goes with the next package. */
final class HandoffQuestions
{
    /**
     * @param  string|null  $path  of the thing in the package that it is about; null for all of it
     *
     * @throws Problem if the package is not delivered, was accepted, or holds no such thing
     */
    public function ask(Handoff $handoff, User $user, string $question, ?string $path): HandoffQuestion
    {
        if ($handoff->delivered_at === null) {
            throw Problem::refused('handoff.packing', 'The package is not delivered yet.', 'Wait until it is.');
        }
        if ($handoff->state === 'accepted') {
            throw Problem::refused('handoff.answered', 'This hand-off is accepted already.', 'Take the acceptance back first.');
        }
        $about = $path === null ? null : PackageContents::find($handoff, $path);
        if ($path !== null && $about === null) {
            throw Problem::missing('That part of the package', 'Load the page again.');
        }

        return DB::transaction(static function () use ($handoff, $user, $question, $path, $about): HandoffQuestion {
            $made = HandoffQuestion::query()->create([
                'handoff_id' => $handoff->id,
                'clip_id' => $about['clip_id'] ?? null,
                'take_id' => $about['take_id'] ?? null,
                'path' => $path,
                'question' => $question,
                'user_id' => $user->id,
            ]);
            $handoff->update(['state' => 'queried', 'answered_at' => now(), 'answered_by' => $user->id, 'query' => $question]);
            Audit::write('handoff.answered', $user->id, $handoff->production_id, ['handoff' => $handoff->number, 'state' => 'queried']);
            WebHooks::tell($handoff, 'asked', ['question' => $question, 'path' => $path]);
            Live::tell($handoff->production_id, Topic::Handoffs, ['handoff' => $handoff->ulid]);
            Live::tell($handoff->production_id, Topic::Takes);

            return $made;
        });
    }

    /** @throws Problem if it was answered meanwhile */
    public function answer(HandoffQuestion $question, User $user, string $answer): void
    {
        $isFirst = HandoffQuestion::query()
            ->whereKey($question->id)
            ->whereNull('answered_at')
            ->update(['answer' => $answer, 'answered_by' => $user->id, 'answered_at' => now()]);
        if ($isFirst === 0) {
            throw Problem::conflict('question.answered', 'Somebody answered this question meanwhile.', 'Load the page again.');
        }
        Live::tell($question->handoff->production_id, Topic::Handoffs, ['handoff' => $question->handoff->ulid]);
        Live::tell($question->handoff->production_id, Topic::Takes);
    }

    /** Takes an answer back, as long as no package took it along. */
    public function takeBack(HandoffQuestion $question): void
    {
        if ($question->answered_at !== null && self::wentAlong($question)) {
            throw Problem::refused('question.gone', 'The answer went with a later package.', 'Hand off again with what changed.');
        }
        $question->update(['answer' => null, 'answered_by' => null, 'answered_at' => null]);
        Live::tell($question->handoff->production_id, Topic::Handoffs, ['handoff' => $question->handoff->ulid]);
        Live::tell($question->handoff->production_id, Topic::Takes);
    }

    private static function wentAlong(HandoffQuestion $question): bool
    {
        return Handoff::query()
            ->where('production_id', $question->handoff->production_id)
            ->where('number', '>', $question->handoff->number)
            ->where('created_at', '>=', $question->answered_at)
            ->exists();
    }

    /** @return list<array{question: string, answer: string}> the answers since the package before, which go with this one */
    public static function answersGoingWith(Handoff $handoff): array
    {
        $before = Handoff::query()
            ->where('production_id', $handoff->production_id)
            ->where('number', '<', $handoff->number)
            ->whereNotNull('delivered_at')
            ->latest('number')
            ->first();

        return HandoffQuestion::query()
            ->whereHas(
                'handoff',
                static fn($query) => $query->where('production_id', $handoff->production_id)->where('number', '<', $handoff->number),
            )
            ->whereNotNull('answered_at')
            ->when($before !== null, static fn($query) => $query->where('answered_at', '>=', $before?->created_at))
            ->orderBy('id')
            ->get()
            ->map(static fn(HandoffQuestion $one): array => ['question' => $one->question, 'answer' => (string) $one->answer])
            ->all();
    }
}
