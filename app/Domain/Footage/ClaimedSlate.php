<?php

declare(strict_types=1);

namespace App\Domain\Footage;

use App\Models\Clip;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;

/** What one source says a clip's slate is: a recorder's iXML fields, or the clip's name and folders. */
final readonly class ClaimedSlate
{
    /**
     * @param  'ixml'|'name'  $from
     * @param  string|null  $pattern  that read the name
     */
    private function __construct(public string $from, public string $where, public Slate $slate, public ?string $pattern = null) {}

    /** @return list<self> readable ones, the more trusted source first */
    public static function of(Clip $clip, SlateReader $reader, SlateStyle $style): array
    {
        $claims = [];
        $ixml = $clip->facts['ixml'] ?? null;
        if ($ixml !== null && ($ixml['wild'] ?? false) !== true) {
            $slate = SlateReader::fields($ixml['scene'] ?? null, $ixml['take'] ?? null, $style);
            if ($slate->isReadable()) {
                $claims[] = new self('ixml', $clip->name, $slate);
            }
        }
        $read = $reader->read($clip->name);
        // A name that says it goes before its folders.
        $read = $read['slate']->isReadable() ? $read : $reader->readPath($clip->path);
        if ($read['slate']->isReadable()) {
            $claims[] = new self('name', $clip->name, $read['slate'], $read['pattern']);
        }

        return $claims;
    }

    /** @return array{from: string, where: string, setup: string, take: int, part: string} */
    public function toArray(): array
    {
        return [
            'from' => $this->from,
            'where' => $this->where,
            'setup' => (string) $this->slate->setup,
            'take' => (int) $this->slate->take,
            'part' => $this->slate->part,
        ];
    }

    /**
     * As a claim that was kept is written: `12A/3`.
     *
     * @param  array{setup: string, take: int, part?: string}  $claim
     */
    public static function label(array $claim): string
    {
        return $claim['setup'] . '/' . $claim['take'] . ($claim['part'] ?? '');
    }
}
