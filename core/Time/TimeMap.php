<?php

declare(strict_types=1);

namespace Wattage\Core\Time;

/** Time taken out at a moment, or blank time put in there: by this one map everything moves that has a time. */
final readonly class TimeMap
{
    /**
     * @param int $at timeline samples
     * @param int $removed samples taken out from there
     * @param int $inserted blank samples put in there
     */
    private function __construct(public int $at, public int $removed, public int $inserted)
    {
    }

    /** @param int $length samples > 0 */
    public static function inserting(int $at, int $length): self
    {
        return new self($at, 0, $length);
    }

    public static function removing(Span $span): self
    {
        return new self($span->from, $span->length(), 0);
    }

    /** Moves what comes at a moment and later by so many samples: later by inserting there, earlier by taking out what comes before it. */
    public static function shifting(int $from, int $by): self
    {
        return $by >= 0 ? new self($from, 0, $by) : new self($from + $by, -$by, 0);
    }

    /** Samples by which all that comes later moves. */
    public function shift(): int
    {
        return $this->inserted - $this->removed;
    }

    /** First sample that moves by the whole shift. */
    public function after(): int
    {
        return $this->at + $this->removed;
    }

    /** Where a moment goes; null when it is taken out. */
    public function moment(int $position): ?int
    {
        return match (true) {
            $position < $this->at => $position,
            $position >= $this->after() => $position + $this->shift(),
            default => null,
        };
    }

    /** Where a stretch goes: it loses what is taken out of it, and grows by what is put into it. Null when nothing of it is left. */
    public function span(Span $span): ?Span
    {
        $from = $this->moment($span->from) ?? $this->at;
        // Its last sample decides: what ends where time is put in does not grow.
        $to = ($this->moment($span->to - 1) ?? $this->at - 1) + 1;

        return $from < $to ? Span::of($from, $to) : null;
    }
}
