<?php

declare(strict_types=1);

namespace App\Domain\Handoff;

use App\Domain\Tasks\StartTask;
use App\Models\Handoff;
use App\Models\User;
use App\Support\Audit;
use App\Support\Folders;
use App\Support\Live;
use App\Support\Problem;
use App\Support\Topic;
use Cartella\Core\Custody\FolderWalk;
use Cartella\Core\Custody\Manifest;

/**
 * The editor's answer to a hand-off: queried with a sentence, or accepted, once {@see AcceptJob} has read the package and
 * found it whole. What is missing, foreign or of another size is told at once.
 */
final class AnswerHandoff
{
    public function __construct(private readonly StartTask $start) {}

    /** @throws Problem if the package is not delivered, was answered already, or is not whole */
    public function __invoke(Handoff $handoff, User $user, ?string $query): Handoff
    {
        if ($handoff->delivered_at === null) {
            throw Problem::refused('handoff.packing', 'The package is not delivered yet.', 'Wait until it is.');
        }
        if ($handoff->state === 'accepted') {
            throw Problem::refused('handoff.answered', 'This hand-off is accepted already.', 'Nothing to do.');
        }
        if ($query === null) {
            $found = self::look(Folders::inbox($handoff->folder));
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
        $handoff->update(['state' => 'queried', 'answered_at' => now(), 'answered_by' => $user->id, 'query' => $query]);
        Audit::write('handoff.answered', $user->id, $handoff->production_id, ['handoff' => $handoff->number, 'state' => 'queried']);
        Live::tell($handoff->production_id, Topic::Handoffs, ['handoff' => $handoff->ulid]);

        return $handoff;
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
    private static function look(string $folder): array
    {
        $known = [];
        foreach (Manifest::chain($folder) as $generation) {
            foreach (Manifest::read($folder . '/' . FolderWalk::HISTORY . '/' . basename($generation['path'])) as $entry) {
                $known[$entry->path] = $entry->sizeBytes;
            }
        }
        $found = ['missing' => $known === [] ? ['the manifest'] : [], 'altered' => [], 'new' => []];
        $there = [];
        foreach (is_dir($folder) ? FolderWalk::of($folder) : [] as $path => $facts) {
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
