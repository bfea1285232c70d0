<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Closure;
use Doctrine\DBAL\Connection;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Revision;
use Wattage\App\Entity\User;
use Wattage\App\Figures\DuckingPlans;
use Wattage\Core\Edit\Change;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;

/**
 * The steps of a project: edits, back and forth. Revisions form a tree; the head is the present state, undo goes to its parent and redo to its
 * newest child. Nothing is ever removed from it. Every step names the revision that the screen shows, its base.
 */
final readonly class History
{
    public function __construct(private EntityManagerInterface $entities, private Connection $database, private Revisions $revisions, private EditReaders $readers, private Refusals $refusals, private DuckingPlans $ducking)
    {
    }

    public function begin(Project $project, User $author, ?Mix $mix = null): Revision
    {
        $first = $this->revisions->first($project, $author, $mix ?? Mix::empty());
        $project->lastRevision = 1;
        $project->moveHead(1, $author);
        $this->entities->persist($first);

        return $first;
    }

    public function head(Project $project): Revision
    {
        return $this->revisions->numbered($project, $project->head);
    }

    /** The present mix. */
    public function mix(Project $project): Mix
    {
        return $this->revisions->mix($this->head($project));
    }

    /** @throws NotFoundHttpException */
    public function mixAt(Project $project, int $number): Mix
    {
        return $this->revisions->mix($this->revisions->numbered($project, $number));
    }

    /** From what a screen shows to the present, by whoever. @throws UnknownBase */
    public function since(Project $project, int $base): Step
    {
        return new Step($project, $this->base($project, $base), $this->head($project));
    }

    /**
     * Applies an edit to the newest state. One made on an older state is applied all the same where it still makes sense.
     *
     * @param bool $instead whether it stands for the newest edit and not beside it, as when a dip just made is drawn deeper; then
     *                      the two are one step to undo
     *
     * @throws Problem|OutdatedRevision|UnknownBase
     */
    public function edit(Project $project, User $author, int $base, mixed $json, bool $instead = false): void
    {
        $this->locked($project, $base, function (Revision $present, Revision $from) use ($project, $author, $json, $instead): Revision {
            if ($instead && ($from !== $present || null === $present->parent || !$present->author->is($author))) {
                throw OutdatedRevision::replaced($present->number);
            }
            $head = $instead ? $this->revisions->numbered($project, (int) $present->parent) : $present;
            $before = $this->revisions->mix($head);
            try {
                $edit = $this->readers->of($project, $before, $json)->read($json);
                $label = $edit->label($before);
                $after = Change::by($edit, $before);
                $after = $after === $before ? $before : $this->ducking->followed($project, $after);
            } catch (Problem $problem) {
                throw $this->refusals->edit(new Step($project, $from, $present), $author, $json, $problem);
            }
            $next = $after === $before ? $head : $this->revisions->next($project, $head, $label, $author, $after);
            $this->entities->persist($next);
            $next === $present || $project->moveHead($next->number, $author);

            return $next;
        });
    }

    /**
     * Takes up an earlier state as a new step, so that undo leads back to the present one.
     *
     * @throws UnknownBase|NotFoundHttpException
     */
    public function takeUp(Project $project, User $author, int $base, int $number, string $label): void
    {
        $this->locked($project, $base, function (Revision $present) use ($project, $author, $number, $label): Revision {
            $next = $this->revisions->next($project, $present, $label, $author, $this->mixAt($project, $number));
            $this->entities->persist($next);
            $project->moveHead($next->number, $author);

            return $next;
        });
    }

    /**
     * One step back; nothing when there is none.
     *
     * @param bool $evenOthers whether somebody else's edit may be taken back
     *
     * @throws OutdatedRevision|OthersEdit|UnknownBase
     */
    public function undo(Project $project, User $author, int $base, bool $evenOthers = false): void
    {
        $this->moved($project, $author, $base, 'undo', function (Revision $head) use ($project, $author, $evenOthers): Revision {
            if (null === $head->parent) {
                return $head;
            }
            $evenOthers || $head->author->is($author) || throw new OthersEdit($head->author->name, $head->label, $head->number);

            return $this->revisions->numbered($project, $head->parent);
        }, static fn (Revision $head): string => "Undo “{$head->label}”");
    }

    /** One step forth again, the way last taken. @throws OutdatedRevision|UnknownBase */
    public function redo(Project $project, User $author, int $base): void
    {
        $child = fn (Revision $head): Revision => null === ($number = $this->newestChild($project, $head->number)) ? $head : $this->revisions->numbered($project, $number);
        $this->moved($project, $author, $base, 'redo', $child, static fn (Revision $head, Revision $to): string => "Redo “{$to->label}”");
    }

    /** To any state. @throws OutdatedRevision|UnknownBase|NotFoundHttpException */
    public function goTo(Project $project, User $author, int $base, int $number): void
    {
        $this->moved($project, $author, $base, 'going to another state', fn (): Revision => $this->revisions->numbered($project, $number), static fn (Revision $head, Revision $to): string => "Go to “{$to->label}”");
    }

    public function canRedo(Project $project): bool
    {
        return null !== $this->newestChild($project, $project->head);
    }

    /**
     * A step to a state that already is.
     *
     * @param Closure(Revision): Revision $target
     * @param Closure(Revision, Revision): string $what in words, from the head and the target
     */
    private function moved(Project $project, User $author, int $base, string $step, Closure $target, Closure $what): void
    {
        $this->locked($project, $base, function (Revision $head, Revision $from) use ($project, $author, $step, $target, $what): Revision {
            $from === $head || throw $this->refusals->step(new Step($project, $from, $head), $author, $step);
            $to = $target($head);
            $to === $head || $project->moveHead($to->number, $author, mb_strimwidth($what($head, $to), 0, 450, '…'));

            return $to;
        });
    }

    private function base(Project $project, int $number): Revision
    {
        try {
            return $this->revisions->numbered($project, $number);
        } catch (NotFoundHttpException) {
            throw new UnknownBase($number);
        }
    }

    private function newestChild(Project $project, int $number): ?int
    {
        $child = $this->database->fetchOne('SELECT max(number) FROM revision WHERE project_id = ? AND parent = ?', [(string) $project->id, $number]);

        return is_numeric($child) ? (int) $child : null;
    }

    /**
     * Runs a change while no other request can change the same project, and stores it.
     *
     * @param Closure(Revision, Revision): Revision $change from the present and the base to the new present
     */
    private function locked(Project $project, int $base, Closure $change): void
    {
        $to = $this->entities->wrapInTransaction(function () use ($project, $base, $change): Revision {
            $this->entities->refresh($project, LockMode::PESSIMISTIC_WRITE);

            return $change($this->head($project), $this->base($project, $base));
        });
        $this->revisions->remember($to);
    }
}
