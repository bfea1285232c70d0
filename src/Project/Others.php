<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\DBAL\Connection;
use Wattage\App\Entity\User;

/** What others than one person did to a mix while that one's screen showed an older state. */
final readonly class Others
{
    public function __construct(private Connection $database)
    {
    }

    /** @return list<array{name: string, what: string}> oldest first */
    public function since(Step $step, User $but): array
    {
        /** @var list<array{name: string, what: string}> $made */
        $made = $this->database->fetchAllAssociative(
            'SELECT a.name, r.label AS what FROM revision r JOIN account a ON a.id = r.author_id
             WHERE r.project_id = ? AND r.number > ? AND r.author_id <> ? ORDER BY r.number DESC LIMIT 20',
            [(string) $step->project->id, $step->from->number, (string) $but->id],
        );
        $made = array_reverse($made);
        $project = $step->project;
        if (null !== $project->moved && null !== $project->movedBy && !$project->movedBy->is($but) && $step->from !== $step->to) {
            $made[] = ['name' => $project->movedBy->name, 'what' => $project->moved];
        }

        return $made;
    }

    /** Their names, as the subject of a sentence. */
    public function names(Step $step, User $but): string
    {
        $names = array_values(array_unique(array_column($this->since($step, $but), 'name')));
        $last = array_pop($names);

        return match (true) {
            null === $last => 'You, in another window,',
            [] === $names => $last,
            default => implode(', ', $names)." and {$last}",
        };
    }
}
