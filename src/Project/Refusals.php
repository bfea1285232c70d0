<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Wattage\App\Entity\Project;
use Wattage\App\Entity\Revision;
use Wattage\App\Entity\User;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\UnknownItem;

/** What is said of steps that make no sense by now: who changed what they are about, and what was not done. */
final readonly class Refusals
{
    /** As many states are asked for what an edit names and the present one does not know. */
    private const LOOKS_BACK = 10;

    public function __construct(private Revisions $revisions, private EditReaders $readers, private Others $others)
    {
    }

    /** @param string $step such as "undo" */
    public function step(Step $since, User $author, string $step): OutdatedRevision
    {
        return OutdatedRevision::step($this->others->names($since, $author), $step, $since->to->number);
    }

    /**
     * @param Step $since from the state that the edit was made on to the present
     * @param Problem $problem why the present does not take it
     *
     * @return Problem|OutdatedRevision the problem itself where nobody else has to do with it
     */
    public function edit(Step $since, User $author, mixed $json, Problem $problem): Problem|OutdatedRevision
    {
        if ($since->from !== $since->to) {
            return $this->outdated($since, $author, $this->labelOn($since->project, $since->from, $json), $problem);
        }
        // A screen that was told during a drag that what is dragged is gone shows a state that does not know it.
        for ($back = 1; $problem instanceof UnknownItem && $back <= min(self::LOOKS_BACK, $since->to->number - 1); ++$back) {
            $before = $this->revisions->numbered($since->project, $since->to->number - $back);
            $label = $this->labelOn($since->project, $before, $json);
            if ('' !== $label) {
                $known = new Step($since->project, $before, $since->to);

                return [] === $this->others->since($known, $author) ? $problem : $this->outdated($known, $author, $label, $problem);
            }
        }

        return $problem;
    }

    private function outdated(Step $since, User $author, string $label, Problem $problem): OutdatedRevision
    {
        return OutdatedRevision::edit($this->others->names($since, $author), $label, $problem->getMessage(), $since->to->number, $problem->field());
    }

    /** An edit in words, naming what it is about as a state does; empty where that state knows nothing of it. */
    private function labelOn(Project $project, Revision $revision, mixed $json): string
    {
        $mix = $this->revisions->mix($revision);
        try {
            return $this->readers->of($project, $mix, $json)->read($json)->label($mix);
        } catch (Problem) {
            return '';
        }
    }
}
