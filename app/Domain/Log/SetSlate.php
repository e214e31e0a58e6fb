<?php

declare(strict_types=1);

namespace App\Domain\Log;

use App\Models\Clip;
use App\Models\ShootDay;
use App\Models\Take;
use App\Models\User;
use App\Support\Live;
use App\Support\Problem;
use Cartella\Core\Slate\SetupName;
use Cartella\Core\Slate\Slate;
use Cartella\Core\Slate\SlateReader;
use Cartella\Core\Slate\SlateStyle;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Gives clips the slate that a person read off the picture or heard; or takes it away. */
final class SetSlate
{
    public function __construct(private readonly FindTake $find)
    {
    }

    /**
     * @param  Collection<int, Clip>  $clips
     * @param  string|null  $slate  such as `3B/1`; null takes the slate away
     *
     * @throws Problem if the text is not a slate
     */
    public function __invoke(ShootDay $day, User $user, Collection $clips, ?string $slate, bool $falseStart = false): ?Take
    {
        $parsed = $slate === null ? null : self::parse($slate, $day->production->slate_style);
        $take = DB::transaction(function () use ($day, $user, $clips, $parsed, $falseStart): ?Take {
            $log = new ChangeLog();
            $take = $parsed === null ? null : ($this->find)($day, $parsed, $log);
            foreach ($clips as $clip) {
                $clip->take_id = $take?->id;
                $clip->slate_from = 'person';
                $clip->is_false_start = $falseStart;
                $log->save($clip);
            }
            $names = $clips->count() === 1 ? $clips->first()->name : $clips->count().' clips';
            $log->finish($day->production, $user, match (true) {
                $falseStart => "$names is a false start",
                $take === null => "Take the slate off $names",
                default => "$names is {$take->label()}",
            });

            return $take;
        });
        Live::tell($day->production_id, 'takes');

        return $take;
    }

    private static function parse(string $text, SlateStyle $style): Slate
    {
        $slate = SlateReader::name(str_replace(' ', '', $text), $style);
        if (! $slate->isReadable() && preg_match('/\A([A-Za-z0-9-]+)[\/ ]+(\d{1,3})\z/', trim($text), $part) === 1) {
            $setup = SetupName::parse(strtoupper($part[1]));
            $slate = $setup === null || (int) $part[2] === 0 ? $slate : new Slate($setup->scene(), $setup->label(), (int) $part[2]);
        }

        return $slate->isReadable() ? $slate : throw Problem::refused('slate.unreadable', sprintf('"%s" is not a slate.', mb_substr($text, 0, 40)), 'Write setup and take, such as 3B/1.');
    }
}
