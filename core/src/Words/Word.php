<?php

declare(strict_types=1);

namespace Cartella\Core\Words;

use Cartella\Core\Failure;

/**
 * One spoken word as it is written, with its punctuation, and when it is heard: ticks from the clip's first sample, end exclusive.
 *
 * `confidence` is 0 to 1, null where nobody measured it; `speaker` a name, null where nobody knows. A draft is what a general
 * model heard of free speech.
 */
final readonly class Word
{
    /** Letters of one word that are kept. */
    public const LONGEST = 100;

    public function __construct(
        public string $text,
        public int $startTicks,
        public int $endTicks,
        public ?string $speaker = null,
        public ?float $confidence = null,
        public bool $isDraft = false,
    ) {}

    /** @throws Exception\UnableToReadWords if what somebody sent is no word */
    public static function fromArray(mixed $given, int $number): self
    {
        if (!is_array($given) || !is_string($given['text'] ?? null) || trim($given['text']) === '') {
            throw Exception\UnableToReadWords::word($number, 'has no text');
        }
        $start = $given['start_ticks'] ?? null;
        $end = $given['end_ticks'] ?? null;
        if (!is_int($start) || !is_int($end) || $start < 0 || $end < $start) {
            throw Exception\UnableToReadWords::word($number, 'does not say when it is heard');
        }
        $speaker = $given['speaker'] ?? null;
        $confidence = $given['confidence'] ?? null;

        return new self(
            mb_substr(Failure::quote(trim($given['text'])), 0, self::LONGEST),
            $start,
            $end,
            is_string($speaker) && trim($speaker) !== '' ? mb_substr(mb_scrub(trim($speaker)), 0, 60) : null,
            is_int($confidence) || is_float($confidence) ? max(0.0, min(1.0, (float) $confidence)) : null,
            ($given['draft'] ?? false) === true,
        );
    }

    /** @return array{text: string, start_ticks: int, end_ticks: int, speaker: ?string, confidence: ?float, draft?: true} */
    public function toArray(): array
    {
        return [
            'text' => $this->text,
            'start_ticks' => $this->startTicks,
            'end_ticks' => $this->endTicks,
            'speaker' => $this->speaker,
            'confidence' => $this->confidence,
        ] + ($this->isDraft ? ['draft' => true] : []);
    }

    public function with(?string $text = null, ?string $speaker = null): self
    {
        return new self(
            $text ?? $this->text,
            $this->startTicks,
            $this->endTicks,
            $speaker ?? $this->speaker,
            $this->confidence,
            $this->isDraft,
        );
    }

    public function sure(?float $confidence): self
    {
        return new self($this->text, $this->startTicks, $this->endTicks, $this->speaker, $confidence, $this->isDraft);
    }

    public function at(int $startTicks, int $endTicks): self
    {
        return new self($this->text, $startTicks, max($startTicks, $endTicks), $this->speaker, $this->confidence, $this->isDraft);
    }

    public function later(int $ticks): self
    {
        return new self(
            $this->text,
            $this->startTicks + $ticks,
            $this->endTicks + $ticks,
            $this->speaker,
            $this->confidence,
            $this->isDraft,
        );
    }
}
