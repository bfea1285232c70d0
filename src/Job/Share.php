<?php

declare(strict_types=1);

namespace Wattage\App\Job;

/** A part of the work on a lease, which tells of its own progress and not of the whole. */
final readonly class Share
{
    /**
     * @param float $from how much of the whole is done before it, 0 … 1
     * @param float $part how much of the whole it is
     */
    private function __construct(private Lease $lease, private float $from, private float $part)
    {
    }

    /** @param float $part of the whole, the rest being to make it known */
    public static function of(Lease $lease, float $part): self
    {
        return new self($lease, 0.0, $part);
    }

    /** @param float $done of this part, 0 … 1 */
    public function report(float $done): void
    {
        $this->lease->report($this->from + $this->part * min(1.0, $done));
    }

    /** @throws Cancelled|Interrupted|LeaseLost */
    public function alive(): void
    {
        $this->lease->alive();
    }

    /** A part of this part. */
    public function part(float $from, float $part): self
    {
        return new self($this->lease, $this->from + $from * $this->part, $part * $this->part);
    }
}
