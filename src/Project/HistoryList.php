<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\DBAL\Connection;
use Wattage\App\Entity\Project;

/** Every state that ever was, with the one it came from: the present line and all that was left for another way. */
final readonly class HistoryList
{
    public const PART = 500;

    public function __construct(private Connection $database)
    {
    }

    /**
     * The newest revisions within two numbers, both exclusive, at most so many. Enough to find the present: where it lies further back than
     * a part, the first part goes as far.
     *
     * @return array{revisions: list<array{number: int, parent: ?int, label: string, at: string, author: string}>, more: bool} newest first; whether there are older ones
     */
    public function part(Project $project, int $after = 0, ?int $before = null): array
    {
        $most = null === $before ? max(self::PART, $project->lastRevision - $project->head + self::PART / 2) : self::PART;
        /** @var list<array{number: int, parent: ?int, label: string, at: string, author: string}> $rows */
        $rows = $this->database->fetchAllAssociative(
            'SELECT r.number, r.parent, r.label, to_char(r.created_at, \'YYYY-MM-DD"T"HH24:MI:SS"Z"\') AS at, a.name AS author
             FROM revision r JOIN account a ON a.id = r.author_id WHERE r.project_id = ? AND r.number > ? AND r.number < ? ORDER BY r.number DESC LIMIT ?',
            [(string) $project->id, $after, $before ?? $project->lastRevision + 1, (int) $most],
        );
        $last = $rows[\count($rows) - 1]['number'] ?? 0;

        return ['revisions' => $rows, 'more' => $last > max(1, $after + 1)];
    }
}
