<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Generator;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;

/** A sounding clip with all that is needed to hear it. Meant to be read in rising time. */
final class Voice
{
    private int $next = 0;

    /** @param non-empty-list<Stretch> $stretches in source time, following one another */
    public function __construct(public readonly Clip $clip, public readonly PcmSource $source, private readonly array $stretches, public readonly Routing $routing)
    {
    }

    /** Samples by which its source is ahead of the timeline. */
    public function shift(): int
    {
        return $this->clip->in - $this->clip->at;
    }

    /** @return Generator<array{Stretch, int, int}> the stretches under a span of the timeline, each with the part of the source to play */
    public function stretchesWithin(Span $part): Generator
    {
        $span = $part->shifted($this->shift());
        if ($this->stretches[$this->next]->from > $span->from) {
            $this->next = 0;
        }
        while ($this->stretches[$this->next]->to <= $span->from) {
            ++$this->next;
        }
        for ($i = $this->next, $n = \count($this->stretches); $i < $n && $this->stretches[$i]->from < $span->to; ++$i) {
            $stretch = $this->stretches[$i];
            yield [$stretch, max($stretch->from, $span->from), min($stretch->to, $span->to)];
        }
    }
}
