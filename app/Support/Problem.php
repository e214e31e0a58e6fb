<?php

declare(strict_types=1);

namespace App\Support;

use Cartella\Core\Failure;

/** A refusal of the application: what was wanted, why not, what to do next, and the HTTP status that says so. */
final class Problem extends \RuntimeException
{
    /** @param  array<string, mixed>  $context */
    private function __construct(
        string $message,
        public readonly string $problemCode,
        public readonly string $fix,
        public readonly int $status,
        public readonly array $context = [],
    ) {
        parent::__construct($message);
    }

    /** @param  array<string, mixed>  $context */
    public static function refused(string $code, string $message, string $fix, array $context = []): self
    {
        return new self($message, $code, $fix, 422, $context);
    }

    /** @param  array<string, mixed>  $context */
    public static function forbidden(string $code, string $message, string $fix, array $context = []): self
    {
        return new self($message, $code, $fix, 403, $context);
    }

    /** A program showed no token, or one that opens nothing. */
    public static function unknownToken(): self
    {
        return new self('This token opens nothing here.', 'token.unknown', 'Ask for one in the set-up of the production.', 401);
    }

    public static function tooOften(int $seconds): self
    {
        return new self(
            'That was tried too often.',
            'too_many',
            $seconds > 90 ? sprintf('Wait %d minutes and try again.', (int) ceil($seconds / 60)) : 'Wait a minute and try again.',
            429,
        );
    }

    public static function missing(string $what, string $fix): self
    {
        return new self($what . ' is not here.', 'missing', $fix, 404);
    }

    /** It was here and has ended. */
    public static function gone(string $code, string $message, string $fix): self
    {
        return new self($message, $code, $fix, 410);
    }

    /**
     * What somebody else did meanwhile stands in the way.
     *
     * @param  array<string, mixed>  $context
     */
    public static function conflict(string $code, string $message, string $fix, array $context = []): self
    {
        return new self($message, $code, $fix, 409, $context);
    }

    /** @param  list<array{field: string, yours: mixed, theirs: mixed}>  $fields */
    public static function editedMeanwhile(string $what, array $fields): self
    {
        return new self(
            sprintf('Somebody else changed %s while you were typing.', Failure::quote($what)),
            'edit.conflict',
            'Look at both values and choose one.',
            409,
            ['fields' => $fields],
        );
    }

    /** @param  string  $why  a clause without a full stop */
    public static function cannotUndo(string $label, string $why, bool $back = true): self
    {
        return new self(
            sprintf('"%s" cannot be %s: %s.', $label, $back ? 'taken back' : 'done again', $why),
            'undo.conflict',
            $back ? 'It is passed over; the next Ctrl Z takes back the step before it.' : 'It is passed over. Change it by hand instead.',
            409,
        );
    }
}
