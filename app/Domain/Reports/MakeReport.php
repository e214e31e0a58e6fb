<?php

declare(strict_types=1);

namespace App\Domain\Reports;

use App\Domain\Tasks\StartTask;
use App\Models\Card;
use App\Models\ShootDay;
use App\Models\Task;
use App\Models\User;
use App\Support\Folders;
use App\Support\Problem;

/**
 * A PDF that a worker makes. The first who asks starts it and is told to ask again; it is handed out once, so that who asks
 * later gets what stands then.
 */
final class MakeReport
{
    public function __construct(private readonly StartTask $start, private readonly Reports $reports) {}

    /**
     * @param  string  $what  a kind of report that a domain registered
     * @param  string|null  $about  what it is about beside the day and the card
     * @return string|null the PDF; null while it is being made
     *
     * @throws Problem if it could not be made
     */
    public function __invoke(ShootDay $day, User $user, string $what, ?Card $card = null, ?string $about = null): ?string
    {
        $task =
            $this->latest($day, $user, $what, $card, $about) ??
            ($this->start)($day->production, $user, 'report', $this->reports->title($what, $day, $about), [
                'day' => $day->id,
                'what' => $what,
                'card' => $card?->id,
                'about' => $about,
            ]);
        $task->refresh();
        if ($task->state === 'failed' || $task->state === 'cancelled') {
            $this->handOut($task);
            throw Problem::refused('report.failed', (string) ($task->result['message'] ?? 'It could not be made.'), 'Ask for it again.');
        }
        if ($task->state !== 'done') {
            return null;
        }
        $bytes = (string) @file_get_contents(self::file($task));
        $this->handOut($task);

        return $bytes === '' ? throw Problem::refused('report.failed', 'The report is gone.', 'Ask for it again.') : $bytes;
    }

    public static function file(Task $task): string
    {
        return Folders::var('reports/' . $task->ulid . '.pdf');
    }

    private function latest(ShootDay $day, User $user, string $what, ?Card $card, ?string $about): ?Task
    {
        /** @var \Illuminate\Database\Eloquent\Collection<int, Task> $recent */
        $recent = Task::query()
            ->where('production_id', $day->production_id)
            ->where('kind', 'report')
            ->where('user_id', $user->id)
            ->where('created_at', '>', now()->subHour())
            ->latest('id')
            ->limit(20)
            ->get();

        return $recent->first(
            static fn(Task $task): bool => $task->subject['day'] === $day->id &&
                $task->subject['what'] === $what &&
                $task->subject['card'] === $card?->id &&
                ($task->subject['about'] ?? null) === $about &&
                !isset($task->result['handed_out']),
        );
    }

    private function handOut(Task $task): void
    {
        $task->update(['result' => ['handed_out' => true] + ($task->result ?? [])]);
        @unlink(self::file($task));
    }
}
