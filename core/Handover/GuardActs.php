<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

/** What a peak guard did: how long it held something down, and where by how much. */
final class GuardActs
{
    /** Seconds between two peaks after which they count as two places. */
    private const APART = 0.5;

    /** Places that are remembered; beyond them only the sums go on. */
    private const MOST = 500;

    /** Frames that are not as they came. */
    public int $frames = 0;

    /** The most that a peak was taken down, dB. */
    public float $most = 0.0;

    /** @var list<array{int, int, int, float}> first and last frame over the ceiling, frame of the highest, and by how much in dB */
    public array $places = [];

    public function __construct(private readonly int $rate)
    {
    }

    /** @param float $db that a peak at a frame passes the ceiling by */
    public function need(int $frame, float $db): void
    {
        $this->most = max($this->most, $db);
        $last = \count($this->places) - 1;
        if ($last >= 0 && $frame - $this->places[$last][1] < self::APART * $this->rate) {
            [$from, , $at, $most] = $this->places[$last];
            $this->places[$last] = $db > $most ? [$from, $frame, $frame, $db] : [$from, $frame, $at, $most];
        } elseif ($last + 1 < self::MOST) {
            $this->places[] = [$frame, $frame, $frame, $db];
        }
    }

    public function turned(int $from, int $to): void
    {
        $this->frames += $to - $from;
    }

    public function seconds(): float
    {
        return $this->frames / $this->rate;
    }
}
