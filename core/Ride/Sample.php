<?php

declare(strict_types=1);

namespace Wattage\Core\Ride;

/** Where a control stood at a moment of a pass. */
final readonly class Sample
{
    /**
     * @param int $at timeline sample
     * @param float $value dB for a fader, −1 … 1 for a pan, 0 or 1 for a mute
     * @param bool $held whether a hand was on it
     */
    public function __construct(public int $at, public float $value, public bool $held)
    {
    }

    /**
     * As they came in: in order, within the pass, one for each moment (the last that came), values within their limits.
     *
     * @param list<self> $samples
     *
     * @return list<self>
     */
    public static function sorted(array $samples, int $start, int $stop, float $least, float $most): array
    {
        $byTime = [];
        $last = -1;
        $rising = true;
        foreach ($samples as $sample) {
            if ($sample->at < $start || $sample->at > $stop) {
                continue;
            }
            $within = $sample->value >= $least && $sample->value <= $most;
            $byTime[$sample->at] = $within ? $sample : new self($sample->at, max($least, min($most, $sample->value)), $sample->held);
            $rising = $rising && $sample->at >= $last;
            $last = $sample->at;
        }
        if (!$rising) {
            ksort($byTime);
        }

        return array_values($byTime);
    }
}
