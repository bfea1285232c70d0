<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Speech;

use Wattage\Core\Captions\Cue;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Takes captions into the project, or out of it; from then on they say when somebody speaks, or not any more. */
final readonly class SetCaptions implements Edit
{
    /**
     * @param list<Cue> $cues
     * @param int $leftOut cues of the file that could not be used
     */
    public function __construct(private array $cues, private int $leftOut = 0)
    {
    }

    public function label(Mix $before): string
    {
        $count = \count($this->cues);
        $left = 0 === $this->leftOut ? '' : ", {$this->leftOut} left out";

        return 0 === $count ? 'Remove the captions' : \sprintf('Take %d caption%s%s', $count, 1 === $count ? '' : 's', $left);
    }

    public function apply(Mix $before): Mix
    {
        return $before->captions == $this->cues ? $before : $before->withCaptions($this->cues);
    }
}
