<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Generator;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;

/** A sounding clip with all that is needed to hear it. Meant to be read in rising time. */
final readonly class Voice
{
    private Moves $moves;

    /**
     * @param non-empty-list<Stretch> $stretches in source time, following one another
     * @param ?ColouredSound $coloured its sound through the filters of the clip, where it has some; the same for all voices of a clip
     */
    public function __construct(public Clip $clip, public PcmSource $source, array $stretches, public Routing $routing, public ?ColouredSound $coloured = null)
    {
        $this->moves = new Moves($stretches);
    }

    /** Samples by which its source is ahead of the timeline. */
    public function shift(): int
    {
        return $this->clip->in - $this->clip->at;
    }

    /** @return Generator<array{Stretch, int, int}> the stretches under a span of the timeline, each with the part of the source to play */
    public function stretchesWithin(Span $part): Generator
    {
        return $this->moves->within($part->shifted($this->shift()));
    }
}
