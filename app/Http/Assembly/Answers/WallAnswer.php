<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

use App\Domain\Assembly\Events;
use App\Domain\Sequences\PicturePiece;
use App\Http\ListOf;
use App\Http\Sequences\Answers\PicturePieceAnswer;
use App\Http\Shell\Answers\RateAnswer;
use App\Models\Clip;
use App\Models\StoredSequence;
use Cartella\Core\Time\FrameRate;
use Illuminate\Support\Collection;

/** The cameras of an event as the wall shows them, by their lanes; ticks from the event's first frame. */
final readonly class WallAnswer
{
    /**
     * @param  int  $start_ticks  of the line-up's clock, at the first frame
     * @param  list<WallAngleAnswer>  $angles
     * @param  list<string>  $sounds  what the sound of the whole is of
     */
    public function __construct(
        public string $ulid,
        public string $name,
        public int $start_ticks,
        public int $length_ticks,
        public RateAnswer $rate,
        #[ListOf(WallAngleAnswer::class)] public array $angles,
        public array $sounds,
    ) {}

    /** @param  array{from: int, length: int, rate: FrameRate, clips: Collection<int, Clip>}  $event */
    public static function of(StoredSequence $cut, array $event): self
    {
        $angles = $sounds = [];
        foreach ($event['clips'] as $clip) {
            $letter = $clip->device?->letter;
            if ($clip->isSound()) {
                $sounds[] = trim("$letter " . $clip->title());
            } elseif ($letter !== null && (isset($angles[$letter]) || count($angles) < Events::MOST)) {
                $angles[$letter]['clips'][] = $clip;
            }
        }

        return new self(
            $cut->ulid,
            $cut->name,
            $event['from'],
            $event['length'],
            RateAnswer::of($event['rate']),
            array_map(
                static fn(int|string $letter, array $one): WallAngleAnswer => self::angle((string) $letter, $one['clips'], $event),
                array_keys($angles),
                array_values($angles),
            ),
            $sounds,
        );
    }

    /**
     * @param  non-empty-list<Clip>  $clips
     * @param  array{from: int, length: int, rate: FrameRate, clips: Collection<int, Clip>}  $event
     */
    private static function angle(string $letter, array $clips, array $event): WallAngleAnswer
    {
        usort($clips, static fn(Clip $x, Clip $y): int => $x->placement->start_ticks <=> $y->placement->start_ticks);
        $pictures = [];
        $end = 0;
        foreach ($clips as $clip) {
            $start = $clip->placement->start_ticks - $event['from'];
            $from = max(0, $start, $end);
            $to = min($event['length'], $start + (int) $clip->duration_ticks);
            if ($to > $from) {
                $piece = new PicturePiece($clip, $clip->take, $clip->title(), $from, $to - $from, $from - $start);
                $pictures[] = PicturePieceAnswer::of($piece, $event['rate']);
                $end = $to;
            }
        }

        return new WallAngleAnswer($letter, (string) $clips[0]->device->note, ($clips[0]->channels ?? []) !== [], $pictures);
    }
}
