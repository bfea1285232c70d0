<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Timeline\Aim;

/** How a programme stands to what it is to reach. */
final readonly class Verdict
{
    /** EBU R 128 allows half a LU either way. */
    public const TOLERANCE = 0.5;

    /**
     * @param ?float $off LU above the target, or below it (negative); null for silence
     * @param bool $met whether that is near enough
     * @param bool $mayPass whether a sample may pass the highest true peak
     */
    private function __construct(public ?float $off, public bool $met, public bool $mayPass)
    {
    }

    public static function of(Predicted $programme, Aim $aim): self
    {
        $off = null === $programme->integrated ? null : $programme->integrated - $aim->loudness;

        return new self($off, null !== $off && abs($off) <= self::TOLERANCE, ($programme->peak ?? -\INF) > $aim->truePeak);
    }
}
