<?php

declare(strict_types=1);

namespace App\Domain\Day;

use App\Domain\Cards\CheckCard;
use App\Domain\Cards\OffloadCard;
use App\Domain\Lineup\MovePlacement;
use App\Domain\Lineup\StateClock;
use App\Domain\Log\EditTake;
use App\Domain\Log\MarkWild;
use App\Domain\Log\SetSlate;
use App\Domain\Log\Settle;
use App\Domain\Log\SettleClaim;
use App\Domain\Undo\ChangeLog;
use App\Models\Card;
use App\Models\Clip;
use App\Models\SettledPoint;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;

/** Takes the one step that an open point offers; all of them can be taken back. */
final class FixPoint
{
    public function __construct(
        private readonly OpenPoints $points,
        private readonly EditTake $edit,
        private readonly SetSlate $slate,
        private readonly SettleClaim $claim,
        private readonly Settle $settle,
        private readonly MovePlacement $move,
        private readonly OffloadCard $offload,
        private readonly CheckCard $check,
        private readonly StateClock $clocks,
        private readonly MarkWild $wild,
    ) {}

    /** @throws Problem if the point is gone, or does not offer that step */
    public function __invoke(ShootDay $day, User $user, string $key, string $fix): void
    {
        $point = null;
        foreach ($this->points->of($day) as $candidate) {
            $point = $candidate->key === $key ? $candidate : $point;
        }
        if ($point === null) {
            throw Problem::missing('That open point', 'It is settled already; the list is up to date now.');
        }
        if (!in_array($fix, array_column($point->fixes, 'name'), true)) {
            throw Problem::refused('point.fix', 'That is not a step this point offers.', 'Load the page again.');
        }
        $take = isset($point->place['take']) ? Take::query()->where('ulid', $point->place['take'])->firstOrFail() : null;
        $clip = isset($point->place['clip']) ? Clip::query()->where('ulid', $point->place['clip'])->firstOrFail() : null;
        [$name, $value] = [...explode(':', $fix, 2), ''];
        match ($name) {
            'guide' => ($this->edit)($take, $user, ['is_guide_only' => ['was' => false, 'now' => true]]),
            'mos' => ($this->edit)($take, $user, ['is_mos' => ['was' => false, 'now' => true]]),
            'wild' => ($this->edit)($take, $user, ['is_wild' => ['was' => false, 'now' => true]]),
            'absent' => ($this->edit)($take, $user, [
                'absent_devices' => ['was' => $take->absent_devices ?? [], 'now' => [...$take->absent_devices ?? [], $value]],
            ]),
            'slate' => ($this->claim)($take, $user, $value),
            'use' => ($this->settle)($day, $user, $take, ...[...explode(':', $value, 2), false]),
            'false' => ($this->slate)($day, $user, collect([$clip]), null, true),
            'wildclip' => ($this->wild)($clip, $user),
            'lock' => $this->move->lock($clip, $user, true),
            'clock' => $this->clocks->apply($day, $day->production->devices()->where('letter', $value)->firstOrFail(), $user, 'day'),
            'check' => ($this->check)(Card::query()->where('ulid', $point->place['card'])->firstOrFail(), $user),
            'retry' => $this->retry($day, $user, $point->place['card']),
            'settle' => $this->asItIs($day, $user, $key),
            default => throw new \LogicException("No step $name"),
        };
    }

    private function retry(ShootDay $day, User $user, string $ulid): void
    {
        $card = Card::query()->where('ulid', $ulid)->firstOrFail();
        ($this->offload)($day->production, $user, $day, $card->volume, $card->roll, $card->device);
    }

    private function asItIs(ShootDay $day, User $user, string $key): void
    {
        $log = new ChangeLog();
        $log->save(new SettledPoint(['shoot_day_id' => $day->id, 'point' => $key, 'user_id' => $user->id]));
        $log->finish($day->production, $user, 'Leave a point aside');
        Live::tell($day->production_id, Topic::Takes);
    }
}
