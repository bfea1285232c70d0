<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Generator;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Time\Span;

/** Stretches of gain that are gone through in rising time. */
final class Moves
{
    private int $next = 0;

    /** @param non-empty-list<Stretch> $stretches following one another */
    public function __construct(private readonly array $stretches)
    {
    }

    /** @return Generator<array{Stretch, int, int}> the stretches under a span, each with its part of it */
    public function within(Span $span): Generator
    {
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
