<?php

declare(strict_types=1);

namespace App\Http\Assembly\Answers;

use App\Domain\Sequences\HeardUnder;
use App\Domain\Sequences\PicturePiece;
use App\Http\Sequences\Answers\PicturePieceAnswer;
use App\Http\Sequences\Answers\SoundPieceAnswer;
use App\Models\Clip;
use App\Models\Take;

/** What could stand in place of an item: the same moment from another camera, or of another take. */
final readonly class InsteadAnswer
{
    /**
     * @param  'angle'|'take'  $kind
     * @param  'words'|'action'|'start'|'whole'|'clock'  $how  by what the same moment was found
     * @param  list<SoundPieceAnswer>  $sounds  what is heard with it
     */
    public function __construct(
        public string $kind,
        public string $label,
        public ?CutTakeAnswer $take,
        public ?string $device,
        public string $clip,
        public int $in_ticks,
        public int $out_ticks,
        public string $how,
        public PicturePieceAnswer $picture,
        public array $sounds,
    ) {}

    /** @param  array{kind: 'angle'|'take', label: string, take: Take|null, clip: Clip, in: int, out: int, how: string}  $one */
    public static function of(array $one): self
    {
        $clip = $one['clip'];
        $piece = new PicturePiece($clip, $one['take'], $one['label'], 0, $one['out'] - $one['in'], $one['in']);

        return new self(
            $one['kind'],
            $one['label'],
            $one['take'] === null ? null : CutTakeAnswer::of($one['take']),
            $clip->device?->letter,
            $clip->ulid,
            $one['in'],
            $one['out'],
            $one['how'],
            PicturePieceAnswer::of($piece, $clip->production->rate()),
            $one['kind'] === 'angle' ? [] : array_map(SoundPieceAnswer::of(...), HeardUnder::of([$piece])),
        );
    }
}
