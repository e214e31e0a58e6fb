<?php

declare(strict_types=1);

namespace Database\Factories;

use App\Models\SequenceKind;
use App\Models\StoredSequence;
use Cartella\Core\Cutting\Item;
use Cartella\Core\Cutting\Packed;
use Cartella\Core\Cutting\Sequence;
use Cartella\Core\Cutting\Source;
use Cartella\Core\Cutting\Track;
use Cartella\Core\Cutting\TrackKind;
use Cartella\Core\Time\FrameRate;
use Illuminate\Database\Eloquent\Factories\Factory;

/** @extends Factory<StoredSequence> */
final class StoredSequenceFactory extends Factory
{
    /** Ticks of a frame at 25 frames a second. */
    public const FRAME = 28_224_000;

    protected $model = StoredSequence::class;

    /** @return array<string, mixed> */
    public function definition(): array
    {
        return [
            'production_id' => ProductionFactory::new(),
            'kind' => SequenceKind::Reel,
            'name' => 'Reel',
            'content' => self::content([]),
        ];
    }

    /**
     * A picture and a sound track, the pictures one after the other, ten frames each from frame 20 of a source of 100.
     *
     * @param  list<string>  $sources  their ids
     */
    public function showing(array $sources): self
    {
        return $this->state(['kind' => SequenceKind::Cut, 'content' => self::content($sources), 'items' => count($sources)]);
    }

    /** @param  list<string>  $sources */
    private static function content(array $sources): string
    {
        $items = [];
        foreach ($sources as $n => $id) {
            $source = new Source($id, $id, null, null, 0, 100 * self::FRAME, FrameRate::parse('25'));
            $items[] = new Item($id, $source, 20 * self::FRAME, 10 * self::FRAME, 10 * $n * self::FRAME);
        }

        return Packed::write(
            new Sequence('Reel', FrameRate::parse('25'), 0, [
                new Track(TrackKind::Picture, 'V', $items),
                new Track(TrackKind::Sound, 'A', []),
            ]),
        );
    }
}
