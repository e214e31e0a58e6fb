<?php

declare(strict_types=1);

namespace Cartella\Core\Rules;

/** What a fact is, and so what can be asked of it. */
enum SubjectType: string
{
    /** One of a list, or of what is there. */
    case Choice = 'choice';
    /** A short word of which the beginning says something: scenes and setups. */
    case Slate = 'slate';
    case Text = 'text';
    case Number = 'number';
    /** Seconds. */
    case Length = 'length';
    /** A day, as in 2026-10-05. */
    case Date = 'date';
    case YesNo = 'yes_no';
    /** Cuts and reels that use a thing, or bins that hold it: some, none, or one of those that are named. */
    case Holder = 'holder';

    /** @return list<Test> in the order in which they are offered */
    public function tests(): array
    {
        return match ($this) {
            self::Choice => [Test::Is, Test::IsNot],
            self::Slate => [Test::Is, Test::IsNot, Test::Starts],
            self::Text => [Test::Contains, Test::Lacks, Test::Is, Test::IsNot, Test::Starts, Test::Filled, Test::Blank],
            self::Number => [Test::Is, Test::Least, Test::Most, Test::Filled, Test::Blank],
            self::Length => [Test::Least, Test::Most],
            self::Date => [Test::Is, Test::Least, Test::Most],
            self::YesNo => [Test::Yes, Test::No],
            self::Holder => [Test::Filled, Test::Blank, Test::Is, Test::IsNot],
        };
    }
}
