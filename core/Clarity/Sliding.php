<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

/** Means of rows under a window that only moves on: what comes in is added, what is left behind taken off. */
final class Sliding
{
    private int $from = 0;
    private int $to = 0;
    /** @var array<int, float> */
    private array $sum;

    /** @param array<int, float> $rows one after another, powers */
    public function __construct(private readonly array $rows, private readonly int $row)
    {
        $this->sum = array_fill(0, $row, 0.0);
    }

    /**
     * @param int $from first row, no earlier than before
     * @param int $to last row + 1, likewise
     *
     * @return array<int, float>
     */
    public function mean(int $from, int $to): array
    {
        $sum = $this->sum;
        $rows = $this->rows;
        $n = $this->row;
        for ($i = $this->to * $n; $this->to < $to; ++$this->to) {
            for ($k = 0; $k < $n; ++$k, ++$i) {
                $sum[$k] += $rows[$i];
            }
        }
        for ($i = $this->from * $n; $this->from < $from; ++$this->from) {
            for ($k = 0; $k < $n; ++$k, ++$i) {
                $sum[$k] -= $rows[$i];
            }
        }
        $mean = [];
        $part = 1.0 / max(1, $to - $from);
        foreach ($sum as $k => $power) {
            // What rounding leaves of a sum that went back to nothing is no power.
            $mean[$k] = $power > 1e-16 ? $power * $part : 0.0;
        }
        $this->sum = $sum;

        return $mean;
    }
}
