<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Tasks\StartTask;
use App\Models\Handoff;
use App\Models\User;
use App\Support\Audit;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;

/**
 * The editor accepts a hand-off, once {@see AcceptJob} has read the package and found it whole; what is missing, foreign or of
 * another size is told at once. Until the next package it can be taken back. {@see HandoffQuestions} has what they ask instead.
 */
final class AnswerHandoff
{
    public function __construct(private readonly StartTask $start) {}

    /** @throws Problem if the package is not delivered, was answered already, or is not whole */
    public function __invoke(Handoff $handoff, User $user): Handoff
    {
        if ($handoff->delivered_at === null) {
            throw Problem::refused('handoff.packing', 'The package is not delivered yet.', 'Wait until it is.');
        }
        if ($handoff->state === 'accepted') {
            throw Problem::refused('handoff.answered', 'This hand-off is accepted already.', 'Nothing to do.');
        }
        $found = self::look(Delivery::of($handoff));
        $wrong = array_merge(...array_values($found));
        if ($wrong !== []) {
            throw self::altered($wrong, $found);
        }
        ($this->start)(
            $handoff->production,
            $user,
            'accept',
            "Accept hand-off $handoff->number",
            ['handoff' => $handoff->id],
            "handoff.$handoff->id",
        );

        return $handoff->refresh();
    }

    /** @throws Problem if it was not accepted, or a later package builds on it */
    public function takeBack(Handoff $handoff, User $user): void
    {
        if ($handoff->state !== 'accepted') {
            throw Problem::refused('handoff.not_accepted', 'This hand-off is not accepted.', 'Load the page again.');
        }
        if (Handoff::query()->where('production_id', $handoff->production_id)->where('number', '>', $handoff->number)->exists()) {
            throw Problem::refused('handoff.later', 'A later package says what is new since this one.', 'Ask about that one instead.');
        }
        $handoff->update(['state' => 'delivered', 'answered_at' => null, 'answered_by' => null]);
        Audit::write('handoff.answered', $user->id, $handoff->production_id, ['handoff' => $handoff->number, 'state' => 'taken back']);
        Live::tell($handoff->production_id, Topic::Handoffs, ['handoff' => $handoff->ulid]);
    }

    /**
     * @param  list<string>  $wrong
     * @param  array<string, mixed>  $found
     */
    public static function altered(array $wrong, array $found): Problem
    {
        return Problem::refused(
            'handoff.altered',
            sprintf('The package is not as it was delivered: %s.', implode(', ', array_slice($wrong, 0, 3))),
            'Query it, so that it is handed off again.',
            $found,
        );
    }

    /** @return array{missing: list<string>, altered: list<string>, new: list<string>} without reading a file */
    private static function look(Delivery $delivery): array
    {
        $known = $delivery->known();
        $found = ['missing' => $known === [] ? ['the manifest'] : [], 'altered' => [], 'new' => []];
        $there = [];
        foreach ($delivery->list() as $path => $facts) {
            if ($facts['type'] === 'folder') {
                continue;
            }
            $there[(string) $path] = true;
            if (!isset($known[$path])) {
                $found['new'][] = (string) $path;
            } elseif ($facts['size'] !== $known[$path]) {
                $found['altered'][] = (string) $path;
            }
        }
        array_push($found['missing'], ...array_map(strval(...), array_keys(array_diff_key($known, $there))));

        return $found;
    }
}
