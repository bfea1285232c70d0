<?php

declare(strict_types=1);

namespace Wattage\Core\Ride;

/** Which parts of a lane a pass writes: by its mode, and by when a hand was on the control. */
final class Stretches
{
    /**
     * @param list<Sample> $samples in order
     *
     * @return list<array{int, int, non-empty-list<Sample>}> from, to, and the samples in between; the last value holds until the end
     */
    public static function of(Mode $mode, array $samples, int $start, int $stop): array
    {
        if ([] === $samples || $stop <= $start) {
            return [];
        }
        if (Mode::Write === $mode) {
            return [[$start, $stop, $samples]];
        }
        $touches = [];
        $open = [];
        foreach ($samples as $sample) {
            if ($sample->held) {
                $open[] = $sample;
            } elseif ([] !== $open) {
                $touches[] = [$open[0]->at, max($open[0]->at + 1, $sample->at), $open];
                $open = [];
            }
        }
        if ([] !== $open) {
            $touches[] = [$open[0]->at, max($open[0]->at + 1, $stop), $open];
        }
        if (Mode::Latch === $mode && [] !== $touches) {
            $first = $touches[0][0];
            $kept = array_values(array_filter($samples, static fn (Sample $s): bool => $s->at >= $first && $s->held));

            return [[$first, max($first + 1, $stop), [] === $kept ? $touches[0][2] : $kept]];
        }

        return $touches;
    }
}
