<?php

declare(strict_types=1);

namespace Cartella\Core\Rules;

/**
 * What a condition asks of a fact. Facts are lists, since a recording can lie over several takes: the tests that affirm hold
 * where one value of the list passes, those that deny hold where none does.
 */
enum Test: string
{
    case Is = 'is';
    case IsNot = 'is_not';
    case Contains = 'contains';
    case Lacks = 'lacks';
    case Starts = 'starts';
    case Filled = 'filled';
    case Blank = 'blank';
    /** Numbers, lengths and dates, the limit itself included. */
    case Least = 'least';
    case Most = 'most';
    case Yes = 'yes';
    case No = 'no';

    public function denies(): bool
    {
        return in_array($this, [self::IsNot, self::Lacks, self::Blank, self::No], true);
    }

    /** The test that holds where this one, which denies, does not. */
    public function affirmed(): self
    {
        return match ($this) {
            self::IsNot => self::Is,
            self::Lacks => self::Contains,
            self::Blank => self::Filled,
            self::No => self::Yes,
            default => $this,
        };
    }

    public function takesValues(): bool
    {
        return !in_array($this, [self::Filled, self::Blank, self::Yes, self::No], true);
    }

    /** Whether several words may stand for it, of which one is enough (or, where it denies, none may be). */
    public function takesSeveral(): bool
    {
        return in_array($this, [self::Is, self::IsNot, self::Contains, self::Lacks, self::Starts], true);
    }
}
