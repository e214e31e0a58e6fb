<?php

declare(strict_types=1);

namespace App\Domain\Handoff\Back;

use App\Domain\Handoff\Delivery;
use App\Domain\Sequences\SequenceStore;
use App\Domain\Tasks\StartTask;
use App\Models\Clip;
use App\Models\StoredSequence;
use App\Models\Task;
use App\Models\User;
use App\Support\Problem;
use Cartella\Core\Custody\PathTemplate;
use Cartella\Core\Cutting\PullRanges;
use Cartella\Core\Media\Ffmpeg;
use Cartella\Core\Process;
use Cartella\Core\Time\Ticks;

/** The originals that a cut needs, pulled into a folder of the inbox: planned here, copied by a worker. */
final class PullOriginals
{
    /** Frames at most on either side. */
    public const MOST_HANDLES = 1000;

    /** Codecs of which every frame stands by itself, so that a stretch can be copied out of them. */
    private const INTRA = ['prores', 'dnxhd', 'mjpeg', 'rawvideo', 'v210', 'ffv1', 'huffyuv', 'cfhd', 'jpeg2000'];

    public function __construct(private readonly StartTask $start, private readonly SequenceStore $store) {}

    /** @throws Problem if the cut needs nothing that is here */
    public function __invoke(StoredSequence $cut, User $user, int $handles, bool $isTrimmed): Task
    {
        if (self::needs($cut, $this->store, $handles) === []) {
            throw Problem::refused('pull.empty', 'Nothing of this cut is linked to a clip here.', 'Link its events first.');
        }

        return ($this->start)(
            $cut->production,
            $user,
            'pull',
            "Pull the originals of $cut->name",
            ['sequence' => $cut->id, 'handles' => $handles, 'trimmed' => $isTrimmed, 'made' => now()->format('Y-m-d His')],
            "pull.$cut->id",
        );
    }

    /** @return list<array{clip: Clip, ranges: list<array{int, int}>}> stretches in ticks from the clip's first frame */
    public static function needs(StoredSequence $cut, SequenceStore $store, int $handles): array
    {
        $sequence = $store->read($cut);
        $ranges = PullRanges::of($sequence, Ticks::ofFrames($handles, $sequence->rate));
        $clips = Clip::query()
            ->with(['card.copies', 'production'])
            ->where('production_id', $cut->production_id)
            ->whereNull('away_at')
            ->whereIn('ulid', array_map(strval(...), array_keys($ranges)))
            ->orderBy('id')
            ->get();
        $needs = [];
        foreach ($clips as $clip) {
            $needs[] = ['clip' => $clip, 'ranges' => $ranges[$clip->ulid]['ranges']];
        }

        return $needs;
    }

    /** Whether a stretch can be copied out of a file without making it anew: every frame or sample stands by itself. */
    public static function canTrim(Clip $clip, string $file): bool
    {
        if (count($clip->paths()) > 1) {
            return false;
        }
        $run = Process::run(Ffmpeg::probe($file, ['-show_entries', 'stream=codec_name,codec_type']), null, 60);
        $streams = $run['status'] === 0 ? json_decode($run['output'], true)['streams'] ?? [] : [];
        foreach ($streams as $stream) {
            $codec = (string) ($stream['codec_name'] ?? '');
            $isWhole = match ($stream['codec_type'] ?? '') {
                'video' => !in_array($codec, self::INTRA, true),
                'audio' => !str_starts_with($codec, 'pcm_'),
                default => false,
            };
            if ($isWhole) {
                return false;
            }
        }

        return $streams !== [];
    }

    public static function delivery(Task $task, StoredSequence $cut): Delivery
    {
        return Delivery::at(
            PathTemplate::plain($cut->production->name) .
                '/Pull ' .
                PathTemplate::plain($cut->name) .
                ' ' .
                PathTemplate::plain((string) $task->subject['made']),
        );
    }
}
