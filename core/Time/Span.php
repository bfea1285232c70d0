<?php

declare(strict_types=1);

namespace Wattage\Core\Time;

/** A half-open range of samples, [from, to), never empty. */
final readonly class Span
{
    private function __construct(public int $from, public int $to)
    {
    }

    /** @throws InvalidTime when reversed or empty */
    public static function of(int $from, int $to): self
    {
        return $from < $to ? new self($from, $to) : throw InvalidTime::reversed($from, $to);
    }

    public function length(): int
    {
        return $this->to - $this->from;
    }

    public function meets(self $other): bool
    {
        return $this->from < $other->to && $other->from < $this->to;
    }

    /** The common part, or null where there is none. */
    public function within(self $other): ?self
    {
        $from = max($this->from, $other->from);
        $to = min($this->to, $other->to);

        return $from < $to ? new self($from, $to) : null;
    }

    public function shifted(int $by): self
    {
        return new self($this->from + $by, $this->to + $by);
    }
}
