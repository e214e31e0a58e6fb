<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Models\Clip;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;

/** What one source says a clip's slate is: a recorder's iXML fields, or the clip's name. */
final readonly class ClaimedSlate
{
    /** @param  'ixml'|'name'  $from */
    private function __construct(public string $from, public string $where, public Slate $slate)
    {
    }

    /** @return list<self> readable ones, the more trusted source first */
    public static function of(Clip $clip, SlateStyle $style): array
    {
        $claims = [];
        $ixml = $clip->facts['ixml'] ?? null;
        if ($ixml !== null && ($ixml['wild'] ?? false) !== true) {
            $slate = SlateReader::fields($ixml['scene'] ?? null, $ixml['take'] ?? null, $style);
            if ($slate->isReadable()) {
                $claims[] = new self('ixml', $clip->name, $slate);
            }
        }
        $slate = SlateReader::name($clip->name, $style);
        if ($slate->isReadable()) {
            $claims[] = new self('name', $clip->name, $slate);
        }

        return $claims;
    }

    /** @return array{from: string, where: string, setup: string, take: int} */
    public function toArray(): array
    {
        return ['from' => $this->from, 'where' => $this->where, 'setup' => (string) $this->slate->setup, 'take' => (int) $this->slate->take];
    }
}
