<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/**
 * Loudness over time from the power of each 100 ms: momentary over 400 ms and short-term over 3 s, each every 100 ms, and what
 * follows for the whole. Memory grows by one number a second.
 *
 * Sources: ITU-R BS.1770, Annex 1; EBU Tech 3341 (momentary, short-term), EBU Tech 3342 (range).
 */
final class LoudnessWindows
{
    private const MOMENTARY = 4;
    private const SHORT_TERM = 30;

    /** @var array<int, float> the last 3 s, by number of the 100 ms */
    private array $recent = [];
    private int $count = 0;
    private float $momentary = 0.0;
    private float $shortTerm = 0.0;
    private ?float $highestMomentary = null;
    private ?float $highestShortTerm = null;
    /** @var list<?float> short-term loudness once a second from the third on, LUFS; null for silence */
    private array $history = [];
    private readonly LoudnessHistogram $moments;
    private readonly LoudnessHistogram $stretches;

    public function __construct()
    {
        $this->moments = new LoudnessHistogram();
        $this->stretches = new LoudnessHistogram();
    }

    /** @param float $power weighted mean square of the next 100 ms, summed over the channels */
    public function push(float $power): void
    {
        $this->recent[$this->count++] = $power;
        unset($this->recent[$this->count - self::SHORT_TERM - 1]);
        if ($this->count >= self::MOMENTARY) {
            $this->momentary = 0.25 * ($power + $this->recent[$this->count - 2] + $this->recent[$this->count - 3] + $this->recent[$this->count - 4]);
            $this->highestMomentary = max($this->highestMomentary ?? 0.0, $this->momentary);
            $this->moments->add($this->momentary);
        }
        if ($this->count >= self::SHORT_TERM) {
            $this->shortTerm = array_sum($this->recent) / self::SHORT_TERM;
            $this->highestShortTerm = max($this->highestShortTerm ?? 0.0, $this->shortTerm);
            $this->stretches->add($this->shortTerm);
            0 === $this->count % 10 && $this->history[] = self::loudness($this->shortTerm);
        }
    }

    /** @return ?float LUFS over the last 400 ms; null before, and for silence */
    public function momentary(): ?float
    {
        return self::loudness($this->count < self::MOMENTARY ? null : $this->momentary);
    }

    /** @return ?float LUFS over the last 3 s; null before, and for silence */
    public function shortTerm(): ?float
    {
        return self::loudness($this->count < self::SHORT_TERM ? null : $this->shortTerm);
    }

    /** @return ?float LUFS; null where nothing passes the gates, or for less than 400 ms */
    public function integrated(): ?float
    {
        return $this->moments->integrated();
    }

    /** @return float LU; 0 for less than 3 s */
    public function range(): float
    {
        return $this->stretches->range();
    }

    /** @return list<?float> short-term loudness at the end of each second from the third on, LUFS; null for silence */
    public function history(): array
    {
        return $this->history;
    }

    /** @return ?float LUFS */
    public function highestMomentary(): ?float
    {
        return self::loudness($this->highestMomentary);
    }

    /** @return ?float LUFS */
    public function highestShortTerm(): ?float
    {
        return self::loudness($this->highestShortTerm);
    }

    private static function loudness(?float $power): ?float
    {
        return null === $power || $power <= 0.0 ? null : Gating::loudness($power);
    }
}
