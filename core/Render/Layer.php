<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

/**
 * A stereo source that goes straight through, over one whole piece: what its gain does, told in units of a few frames, as
 * the fused loops of {@see StereoSum} read them.
 *
 * Where the gain changes its way in the middle of a unit of four, the unit is silent in these loops, and what the gain is
 * at each of its frames stands in $torn.
 */
final readonly class Layer
{
    /** @var array<int, array{float, float, float}> gain, factor and slope from a unit on, by its number */
    public array $changes;

    /** @var array<int, non-empty-list<float>> gains by frame, of such units, by their numbers */
    public array $torn;

    /**
     * @param string $bytes of the whole piece
     * @param list<GainStep> $steps over the whole piece, which is a whole number of units
     * @param int $unit frames
     */
    public function __construct(public string $bytes, array $steps, int $unit)
    {
        $changes = $torn = [];
        $at = 0;
        foreach ($steps as $step) {
            $gain = $step->gain;
            [$factor, $slope] = [$step->factor, $step->slope];
            $into = $at % $unit;
            $number = intdiv($at, $unit);
            $head = 0 === $into ? 0 : min($unit - $into, $step->frames);
            for ($i = 0; $i < $head; ++$i) {
                $torn[$number][] = $gain;
                $gain = $gain * $factor + $slope;
            }
            $whole = intdiv($step->frames - $head, $unit);
            $number = intdiv($at + $head, $unit);
            if ($whole > 0) {
                $changes[$number] = [$gain, $factor, $slope];
            }
            $tail = $step->frames - $head - $whole * $unit;
            if ($tail > 0) {
                $gain = $step->after($head + $whole * $unit);
                $changes[$number + $whole] = [0.0, 1.0, 0.0];
                for ($i = 0; $i < $tail; ++$i) {
                    $torn[$number + $whole][] = $gain;
                    $gain = $gain * $factor + $slope;
                }
            }
            $at += $step->frames;
        }
        if (2 === $unit) {
            // Two gains are told by one step: the first, and as slope what follows on nothing.
            foreach ($torn as $number => [$first, $second]) {
                $changes[$number] = [$first, 0.0, $second];
            }
            $torn = [];
        }
        $this->changes = $changes;
        $this->torn = $torn;
    }

    /**
     * @param list<self> $layers
     *
     * @return array<int, array<int, array{float, float, float}>> changes of gain by unit and layer, in rising order
     */
    public static function changesOf(array $layers): array
    {
        $changes = [];
        foreach ($layers as $v => $layer) {
            foreach ($layer->changes as $number => $change) {
                $changes[$number][$v] = $change;
            }
        }
        ksort($changes);

        return $changes;
    }

    /**
     * @param list<self> $layers
     *
     * @return array<int, array<int, non-empty-list<float>>> gains by frame of torn units, by unit and layer, in rising order
     */
    public static function tornOf(array $layers): array
    {
        $torn = [];
        foreach ($layers as $v => $layer) {
            foreach ($layer->torn as $number => $gains) {
                $torn[$number][$v] = $gains;
            }
        }
        ksort($torn);

        return $torn;
    }
}
