<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Domain\Footage\ColourClips;
use App\Models\Production;
use App\Models\SequenceKind;
use Cartella\Core\Fields\Field;
use Cartella\Core\Fields\FieldType;
use Cartella\Core\Fields\TakeStatus;
use Cartella\Core\Log\ShotSize;
use Cartella\Core\Media\MediaNames;
use Cartella\Core\Rules\Subject;
use Cartella\Core\Rules\SubjectType;
use Illuminate\Support\Facades\DB;

/** Everything that a rule bin of a production can ask about: what lies in bins, its footage, and every field of its takes. */
final class RuleSubjects
{
    /** @return array<string, Subject> by key, in the order in which they are offered */
    public static function of(Production $production): array
    {
        $kinds = array_column(array_map(static fn(EntryKind $kind): array => [$kind->value, $kind->word()], EntryKind::cases()), 1, 0);
        $days = DB::table('shoot_days')->where('production_id', $production->id)->orderBy('number')->pluck('number', 'ulid');
        $devices = DB::table('devices')->where('production_id', $production->id)->orderBy('lane')->pluck('letter')->all();
        $bins = DB::table('bins')->where('production_id', $production->id)->orderBy('name');
        $cuts = DB::table('sequences')->where('production_id', $production->id)->whereNull('removed_at')->orderBy('name');
        $isReel = SequenceKind::Reel->value;
        $list = [
            new Subject('entry', 'What it is', SubjectType::Choice, ['is' => 'that is {}', 'is_not' => 'that is not {}'], $kinds),
            ...array_values(array_filter(array_map(self::field(...), $production->fields()->all()))),
            new Subject(
                'kind',
                'Kind of file',
                SubjectType::Choice,
                ['is' => 'that is {}', 'is_not' => 'that is not {}'],
                ['picture' => 'picture', 'sound' => 'sound', 'still' => 'a still', 'other' => 'another file'],
            ),
            new Subject(
                'import',
                'Import',
                SubjectType::Choice,
                ['is' => 'from the imports: {}', 'is_not' => 'not from the imports: {}'],
                array_combine(MediaNames::IMPORTS, MediaNames::IMPORTS),
            ),
            new Subject(
                'colour',
                'Colour',
                SubjectType::Choice,
                ['is' => 'coloured {}', 'is_not' => 'not coloured {}', 'blank' => 'without a colour'],
                array_combine(ColourClips::COLOURS, ColourClips::COLOURS),
            ),
            new Subject('named', 'Name', SubjectType::Text, [
                'contains' => 'with {} in its name',
                'lacks' => 'without {} in its name',
                'is' => 'called {}',
                'is_not' => 'not called {}',
                'starts' => 'whose name begins with {}',
            ]),
            new Subject(
                'device',
                'Device',
                SubjectType::Choice,
                ['is' => 'recorded by {}', 'is_not' => 'not recorded by {}'],
                array_combine($devices, $devices),
            ),
            new Subject(
                'day',
                'Shoot day',
                SubjectType::Choice,
                ['is' => 'shot on {}', 'is_not' => 'not shot on {}'],
                $days->map(static fn(int $number): string => "day $number")->all(),
            ),
            new Subject('date', 'Date', SubjectType::Date, [
                'is' => 'shot on {}',
                'least' => 'shot on or after {}',
                'most' => 'shot on or before {}',
            ]),
            new Subject('length', 'Length in seconds', SubjectType::Length, [
                'least' => 'at least {} s long',
                'most' => 'at most {} s long',
            ]),
            new Subject('sound', 'Sound', SubjectType::YesNo, ['yes' => 'that has sound', 'no' => 'that has no sound']),
            new Subject('slated', 'Slate', SubjectType::YesNo, ['yes' => 'that has a slate', 'no' => 'that has no slate yet']),
            new Subject('placed', 'Line-up', SubjectType::YesNo, ['yes' => 'lined up surely', 'no' => 'not lined up surely']),
            new Subject('fault', 'Trouble', SubjectType::YesNo, [
                'yes' => 'with trouble in its file',
                'no' => 'without trouble in its file',
            ]),
            new Subject('marker', 'Markers', SubjectType::Text, [
                'contains' => 'with a marker that says {}',
                'lacks' => 'without a marker that says {}',
                'filled' => 'with a marker',
                'blank' => 'without markers',
            ]),
            new Subject('spoken', 'Spoken words', SubjectType::Text, [
                'contains' => 'in which {} was heard',
                'lacks' => 'in which {} was not heard',
                'filled' => 'in which words were heard',
                'blank' => 'in which no words were heard',
            ]),
            new Subject(
                'cut',
                'Cuts',
                SubjectType::Holder,
                [
                    'filled' => 'used in a cut',
                    'blank' => 'not yet in a cut',
                    'is' => 'used in the cut {}',
                    'is_not' => 'not used in the cut {}',
                ],
                (clone $cuts)->where('kind', '!=', $isReel)->pluck('name', 'ulid')->all(),
            ),
            new Subject(
                'reel',
                'Reels',
                SubjectType::Holder,
                [
                    'filled' => 'in a reel',
                    'blank' => 'in no reel yet',
                    'is' => 'in the reel {}',
                    'is_not' => 'not in the reel {}',
                ],
                (clone $cuts)->where('kind', $isReel)->pluck('name', 'ulid')->all(),
            ),
            new Subject(
                'bin',
                'Bins',
                SubjectType::Holder,
                [
                    'filled' => 'in a bin of our own',
                    'blank' => 'in no bin of our own',
                    'is' => 'in the bin {}',
                    'is_not' => 'not in the bin {}',
                ],
                (clone $bins)->whereNull('rule')->pluck('name', 'ulid')->all(),
            ),
            new Subject(
                'rule',
                'Rule bins',
                SubjectType::Holder,
                ['is' => 'in the rule bin {}', 'is_not' => 'not in the rule bin {}'],
                (clone $bins)->whereNotNull('rule')->pluck('name', 'ulid')->all(),
            ),
        ];

        return array_combine(array_map(static fn(Subject $one): string => $one->key, $list), $list);
    }

    /** A field of takes as something to ask about; null for those that no rule needs. */
    private static function field(Field $field): ?Subject
    {
        // A mark is called by its own word, such as MOS; a heading begins with a capital that a sentence does not have.
        $label = $field->type === FieldType::YesNo && !$field->isOwn() ? $field->label : lcfirst($field->label);
        $in = $field->key === 'description' ? $label : "its $label";
        $of = static fn(SubjectType $type, array $phrases, array $choices = []): Subject => new Subject(
            $field->key,
            $field->label,
            $type,
            $phrases,
            $choices,
        );

        return match ($field->type) {
            FieldType::Devices => null,
            FieldType::Status => $of(
                SubjectType::Choice,
                ['is' => 'that is {}', 'is_not' => 'that is not {}'],
                array_column(
                    array_map(
                        static fn(TakeStatus $status): array => [
                            $status->value,
                            match ($status) {
                                TakeStatus::None => 'without a status',
                                TakeStatus::Hold => 'on hold',
                                default => $status->word(),
                            },
                        ],
                        TakeStatus::cases(),
                    ),
                    1,
                    0,
                ),
            ),
            FieldType::YesNo => $field->isOwn()
                ? $of(SubjectType::YesNo, ['yes' => "$label: yes", 'no' => "$label: no"])
                : $of(SubjectType::YesNo, ['yes' => "that is $label", 'no' => "that is not $label"]),
            FieldType::Choice => $of(
                SubjectType::Choice,
                ['is' => "whose $label is {}", 'is_not' => "whose $label is not {}"],
                array_combine($field->choices, $field->choices),
            ),
            FieldType::Number => $of(SubjectType::Number, [
                'is' => "whose $label is {}",
                'least' => "whose $label is at least {}",
                'most' => "whose $label is at most {}",
                'filled' => "with a $label",
                'blank' => "without a $label",
            ]),
            FieldType::Slate => $field->key === 'take'
                ? $of(SubjectType::Number, ['is' => 'take {}', 'least' => 'take {} or later', 'most' => 'take {} or earlier'])
                : $of(SubjectType::Slate, [
                    'is' => "of $label {}",
                    'is_not' => "not of $label {}",
                    'starts' => "whose $label begins with {}",
                ]),
            default => $field->key === 'size'
                ? $of(
                    SubjectType::Text,
                    ['is' => 'that is {}', 'is_not' => 'that is not {}', 'filled' => 'with a size', 'blank' => 'without a size'],
                    array_combine(ShotSize::names(), ShotSize::names()),
                )
                : $of(SubjectType::Text, [
                    'contains' => "with {} in $in",
                    'lacks' => "without {} in $in",
                    'filled' => "with something in $in",
                    'blank' => "with nothing in $in",
                ]),
        };
    }
}
