<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Closure;
use DateTimeImmutable;
use Doctrine\DBAL\Connection;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Revision;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\App\Entity\User;
use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\EditReader;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;

/**
 * The revisions of a project: applies edits, goes back and forth. Revisions form a tree; the head is the present state,
 * undo goes to its parent and redo to its newest child. Nothing is ever removed from it.
 */
final readonly class History
{
    public function __construct(private EntityManagerInterface $entities, private Connection $database, private DuckingPlans $ducking)
    {
    }

    public function begin(Project $project, User $author, ?Mix $mix = null): Revision
    {
        $first = new Revision($project, 1, null, 'New project', $author, MixDocument::encode($mix ?? Mix::empty()), null);
        $project->head = $project->lastRevision = 1;
        $this->entities->persist($first);

        return $first;
    }

    public function head(Project $project): Revision
    {
        return $this->revision($project, $project->head);
    }

    public function revision(Project $project, int $number): Revision
    {
        return $this->entities->getRepository(Revision::class)->findOneBy(['project' => $project, 'number' => $number])
            ?? throw new NotFoundHttpException('This revision does not exist.');
    }

    /**
     * Applies an edit to the newest state. One made on an older state is applied all the same where it still makes sense.
     *
     * @param int $base number of the revision the edit was made on
     * @param bool $instead whether it stands for the newest edit and not beside it, as when a dip just made is drawn deeper; then
     *                      the two are one step to undo
     *
     * @throws Problem|OutdatedRevision
     */
    public function edit(Project $project, User $author, int $base, mixed $json, bool $instead = false): Step
    {
        return $this->locked($project, function () use ($project, $author, $base, $json, $instead): Step {
            $present = $this->head($project);
            if ($instead && ($base !== $present->number || null === $present->parent)) {
                throw OutdatedRevision::because('What was to be adjusted is not the newest edit any more.', $present->number);
            }
            $head = $instead ? $this->revision($project, (int) $present->parent) : $present;
            $before = MixDocument::decode($head->mix);
            try {
                $edit = (new EditReader($before, $this->placeable($project, $json)))->read($json);
                $label = $edit->label($before);
                $after = Change::by($edit, $before);
                $after = $after === $before ? $before : $this->ducking->followed($project, $after);
            } catch (Problem $problem) {
                throw $base === $present->number ? $problem : OutdatedRevision::because($problem->getMessage(), $present->number, $problem->field());
            }
            $shown = $instead ? MixDocument::decode($present->mix) : $before;
            if ($after === $before) {
                $this->moveHead($project, $head->number);

                return new Step($project, $head, $shown, $before);
            }
            $next = new Revision($project, ++$project->lastRevision, $head->number, mb_strimwidth($label, 0, 400, '…'), $author, MixDocument::encode($after), \is_array($json) ? $json : null);
            $this->entities->persist($next);
            $this->moveHead($project, $next->number);

            return new Step($project, $next, $shown, $after);
        });
    }

    /** Takes up an earlier state as a new step, so that undo leads back to the present one. */
    public function takeUp(Project $project, User $author, int $number, string $label): Step
    {
        return $this->locked($project, function () use ($project, $author, $number, $label): Step {
            $head = $this->head($project);
            $before = MixDocument::decode($head->mix);
            $wanted = $this->revision($project, $number);
            $next = new Revision($project, ++$project->lastRevision, $head->number, mb_strimwidth($label, 0, 400, '…'), $author, $wanted->mix, null);
            $this->entities->persist($next);
            $this->moveHead($project, $next->number);

            return new Step($project, $next, $before, MixDocument::decode($next->mix));
        });
    }

    /** One step back; the same state when there is none. */
    public function undo(Project $project): Step
    {
        return $this->locked($project, function () use ($project): Step {
            $head = $this->head($project);

            return $this->goFrom($project, $head, $head->parent ?? $head->number);
        });
    }

    /** One step forth again, the way last taken. */
    public function redo(Project $project): Step
    {
        return $this->locked($project, function () use ($project): Step {
            $head = $this->head($project);

            return $this->goFrom($project, $head, $this->newestChild($project, $head->number) ?? $head->number);
        });
    }

    public function goTo(Project $project, int $number): Step
    {
        return $this->locked($project, fn (): Step => $this->goFrom($project, $this->head($project), $number));
    }

    public function canRedo(Project $project): bool
    {
        return null !== $this->newestChild($project, $project->head);
    }

    /**
     * The line of states through the head: where it came from, and where redo would lead. Newest first.
     *
     * @return list<array{number: int, label: string, at: string, author: string}>
     */
    public function line(Project $project, int $limit = 300): array
    {
        $tip = $project->head;
        for ($i = 0; $i < $limit && null !== ($child = $this->newestChild($project, $tip)); ++$i) {
            $tip = $child;
        }
        /** @var list<array{number: int, label: string, at: string, author: string}> $rows */
        $rows = $this->database->fetchAllAssociative(
            'WITH RECURSIVE line AS (
                SELECT number, parent, label, created_at, author_id, 1 AS depth FROM revision WHERE project_id = :project AND number = :tip
                UNION ALL
                SELECT r.number, r.parent, r.label, r.created_at, r.author_id, depth + 1
                FROM revision r JOIN line ON r.project_id = :project AND r.number = line.parent WHERE depth < :limit
            )
            SELECT line.number, line.label, to_char(line.created_at, \'YYYY-MM-DD"T"HH24:MI:SS"Z"\') AS at, account.name AS author
            FROM line JOIN account ON account.id = line.author_id ORDER BY depth',
            ['project' => (string) $project->id, 'tip' => $tip, 'limit' => $limit],
        );

        return $rows;
    }

    private function goFrom(Project $project, Revision $from, int $number): Step
    {
        $before = MixDocument::decode($from->mix);
        if ($number === $from->number) {
            return new Step($project, $from, $before, $before);
        }
        $to = $this->revision($project, $number);
        $this->moveHead($project, $number);

        return new Step($project, $to, $before, MixDocument::decode($to->mix));
    }

    private function moveHead(Project $project, int $number): void
    {
        $project->head = $number;
        $project->changedAt = new DateTimeImmutable();
    }

    private function newestChild(Project $project, int $number): ?int
    {
        $child = $this->database->fetchOne('SELECT max(number) FROM revision WHERE project_id = ? AND parent = ?', [(string) $project->id, $number]);

        return is_numeric($child) ? (int) $child : null;
    }

    /** @return array<string, \Wattage\Core\Timeline\Source> the source that an edit names, when it is one of the project's */
    private function placeable(Project $project, mixed $json): array
    {
        $id = \is_array($json) ? ($json['source'] ?? null) : null;
        if (!\is_string($id) || !\Symfony\Component\Uid\Uuid::isValid($id)) {
            return [];
        }
        $source = $this->entities->getRepository(Source::class)->findOneBy(['id' => $id, 'project' => $project, 'state' => SourceState::Ready])?->toMixSource();

        return null === $source ? [] : [$source->id => $source];
    }

    /**
     * Runs a change while no other request can change the same project, and stores it.
     *
     * @param Closure(): Step $change
     */
    private function locked(Project $project, Closure $change): Step
    {
        return $this->entities->wrapInTransaction(function () use ($project, $change): Step {
            $this->entities->refresh($project, LockMode::PESSIMISTIC_WRITE);

            return $change();
        });
    }
}
