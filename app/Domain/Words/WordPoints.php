<?php

declare(strict_types=1);

namespace App\Domain\Words;

use App\Domain\Footage\SetSlate;
use App\Domain\Points\OpenPoint;
use App\Domain\Points\PointSource;
use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Transcript;
use App\Models\User;
use App\Support\Clock;
use Cartella\Core\Slate\SetupName;
use Cartella\Core\Slate\SlateStyle;

/** What a slate calls out and the log does not have, or has otherwise; only where it was heard surely. */
final class WordPoints implements PointSource
{
    /** Confidence of the least sure word of a slate under which nobody is asked. */
    private const SURE = 0.7;

    public function __construct(private readonly SetSlate $set) {}

    public function of(ShootDay $day): array
    {
        $points = [];
        $transcripts = Transcript::query()
            ->where('production_id', $day->production_id)
            ->whereNotNull('calls')
            ->whereHas('clip', static fn($clip) => $clip->where('shoot_day_id', $day->id)->whereNull('away_at'))
            ->with(['clip.parts.take', 'clip.production'])
            ->orderBy('id')
            ->get();
        foreach ($transcripts as $transcript) {
            $heard = self::heard($transcript);
            $clip = $transcript->clip;
            // One recording over several takes has many slates; the first of them says nothing about the others.
            if ($heard === null || $clip->parts->count() > 1 || $clip->is_false_start) {
                continue;
            }
            $logged = $clip->parts->first()?->take;
            $evidence = sprintf(
                '%s, at %s.',
                $logged === null
                    ? "It has no slate yet, and \"{$heard['said']}\" is called in it"
                    : "It is logged as {$logged->label()}, and \"{$heard['said']}\" is called in it",
                Clock::label((int) $clip->start_ticks + $heard['at'], $clip->rate() ?? $clip->production->rate()) ??
                    Clock::label($heard['at'], $clip->production->rate()),
            );
            if ($logged === null && !$clip->isSaidByPerson() && !$clip->is_wild) {
                $points[] = new OpenPoint(
                    "called.$clip->ulid.{$heard['slate']}",
                    'warning',
                    "{$clip->title()} calls {$heard['slate']}",
                    $evidence,
                    ['stage' => 'log', 'clip' => $clip->ulid],
                    [['name' => 'take', 'label' => "It is {$heard['slate']}"], ['name' => 'settle', 'label' => 'It is not']],
                );
            } elseif ($logged !== null && $logged->label() !== $heard['slate']) {
                $points[] = new OpenPoint(
                    "called.$clip->ulid.{$heard['slate']}",
                    'warning',
                    "{$clip->title()} calls {$heard['slate']} and is logged as {$logged->label()}",
                    $evidence,
                    ['stage' => 'log', 'take' => $logged->ulid, 'clip' => $clip->ulid],
                    [['name' => 'settle', 'label' => 'The log is right'], ['name' => 'take', 'label' => "It is {$heard['slate']}"]],
                );
            }
        }

        return $points;
    }

    public function fix(ShootDay $day, User $user, OpenPoint $point, string $step, string $value): void
    {
        if ($step !== 'take') {
            throw new \LogicException("No step $step");
        }
        $clip = Clip::query()
            ->where('ulid', $point->place['clip'] ?? '')
            ->where('production_id', $day->production_id)
            ->sole();
        $slate = substr((string) strrchr($point->key, '.'), 1);
        ($this->set)($day, $user, collect([$clip]), $slate);
    }

    /** @return array{slate: string, said: string, at: int}|null null where none was heard surely */
    private static function heard(Transcript $transcript): ?array
    {
        $slate = $transcript->calls['slate'] ?? null;
        if ($slate === null || ($slate['confidence'] ?? 0) < self::SURE) {
            return null;
        }
        $setup = (string) $slate['setup'];
        $label = "$setup/{$slate['take']}";
        if ($transcript->clip->production->slate_style === SlateStyle::Letter && SetupName::parse($setup) === null) {
            return null;
        }

        return ['slate' => $label, 'said' => "$setup take {$slate['take']}", 'at' => (int) $slate['at_ticks']];
    }
}
