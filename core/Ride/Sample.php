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
     * In the order in which they were made, within the pass, values within their limits. Time only goes forward: a sample that says
     * it came before the one made earlier counts at that one's moment, since its clock was wrong and not the hand. One for each
     * moment, the last that came.
     *
     * @param list<self> $samples in the order in which they were made
     *
     * @return list<self> moments strictly rising
     */
    public static function forward(array $samples, int $start, int $stop, float $least, float $most): array
    {
        $byTime = [];
        $latest = $start;
        foreach ($samples as $sample) {
            if ($sample->at < $start || $sample->at > $stop) {
                continue;
            }
            $latest = max($latest, $sample->at);
            $asItCame = $sample->at === $latest && $sample->value >= $least && $sample->value <= $most;
            $byTime[$latest] = $asItCame ? $sample : new self($latest, max($least, min($most, $sample->value)), $sample->held);
        }

        return array_values($byTime);
    }
}
