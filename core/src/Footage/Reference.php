<?php

declare(strict_types=1);

namespace Cartella\Core\Footage;

/**
 * The one way to point at footage: a clip, a take (all of it or one angle), a sequence or a subclip, as a whole or a stretch of it,
 * with all of its sound or some channels. Written `clip:01ARZ3NDEKTSV4RRFFQ69G5FAV`, `take:…@B` for an angle, `…#28224000-56448000`
 * for a stretch in ticks, `…+1.3` for channels; two that are written alike are the same.
 */
final readonly class Reference
{
    public const LONGEST = 255;

    private const PATTERN =
        '/\A(clip|take|sequence|subclip):([0-9A-HJKMNP-TV-Z]{26})(?:@([\p{Lu}\p{N}]{1,8}))?' .
        '(?:#(\d{1,18})-(\d{1,18}))?(?:\+(\d{1,4}(?:\.\d{1,4})*))?\z/u';

    /**
     * @param  string  $id  a ULID
     * @param  string|null  $angle  the letter of the device, for a take
     *
     * @throws InvalidReference if a part says something that the kind cannot have
     */
    public function __construct(
        public ReferenceKind $kind,
        public string $id,
        public ?string $angle = null,
        public ?Span $span = null,
        public ?ChannelSet $channels = null,
    ) {
        if ($angle !== null && $kind !== ReferenceKind::Take) {
            throw InvalidReference::because('only a take has angles');
        }
        if ($kind === ReferenceKind::Subclip && ($span !== null || $channels !== null)) {
            throw InvalidReference::because('a subclip has its own stretch and channels');
        }
    }

    /** @throws InvalidReference */
    public static function parse(string $text): self
    {
        if (strlen($text) > self::LONGEST || preg_match(self::PATTERN, $text, $part, PREG_UNMATCHED_AS_NULL) !== 1) {
            throw InvalidReference::because('it is written in no known way');
        }

        return new self(
            ReferenceKind::from((string) $part[1]),
            (string) $part[2],
            $part[3],
            $part[4] === null ? null : new Span((int) $part[4], (int) $part[5]),
            $part[6] === null ? null : new ChannelSet(array_map(intval(...), explode('.', $part[6]))),
        );
    }

    public function __toString(): string
    {
        return $this->kind->value .
            ':' .
            $this->id .
            ($this->angle === null ? '' : '@' . $this->angle) .
            ($this->span === null ? '' : sprintf('#%d-%d', $this->span->inTicks, $this->span->outTicks)) .
            ($this->channels === null ? '' : '+' . implode('.', $this->channels->numbers));
    }
}
