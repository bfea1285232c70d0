<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Closure;
use Wattage\Core\Clarity\Clarity;
use Wattage\Core\Clarity\Ear;
use Wattage\Core\Speech\Fix;
use Wattage\Core\Timeline\DuckPart;
use Wattage\Core\Timeline\DuckRule;

/** As far as a clarity needs: {@see Clarity} at each moment, with the targets as far down as it takes. */
final class ClarityNeed implements Need
{
    /** On top of what is wanted, 0 … 100: bands are rounded to half decibels, and lanes to a quarter. */
    private const MARGIN = 1.0;
    private const ROUNDS = 8;
    /** How near it is come to what is sought. */
    private const CLOSE = 0.006;
    /** Where it cannot be reached, as deep as comes so near to what could be; more would only take the music away. */
    private const NEAR = 0.01;

    /** @var ?array<int, Given> */
    private ?array $needs = null;
    private readonly float $wanted;

    /**
     * @param Closure(): iterable<int, ?array{array<int, float>, array<int, float>, array<int, float>}> $moments powers by band of the speech, of the targets and of all else, by number of the 100 ms; null where the one before holds
     * @param list<array{float, float, float}> $shares of each band: see {@see BandShares::byBand()}
     */
    public function __construct(private readonly DuckRule $rule, private readonly Ear $ear, private readonly Closure $moments, private readonly array $shares)
    {
        $this->wanted = min(1.0, ((float) $rule->clarity + self::MARGIN) / Clarity::MOST);
    }

    public function between(int $from, int $to): array
    {
        $this->needs ??= $this->all();
        $needs = [];
        for ($k = $from; $k < $to; ++$k) {
            isset($this->needs[$k]) && $needs[$k] = $this->needs[$k];
        }

        return $needs;
    }

    /** @return array<int, Given> */
    private function all(): array
    {
        $needs = [];
        $last = new Given(0.0);
        $worked = 0;
        foreach (($this->moments)() as $k => $powers) {
            // The windows of every other one lie side by side; those between are looked at only where what the one before needs is too little for them.
            if (null !== $powers) {
                [$speech, $targets, $rest] = $powers;
                $said = $this->ear->said($speech);
                if (0 === $worked++ % 2 || $this->indexOf($said, $targets, $rest, $last->all, $last->band) < $this->wanted) {
                    $last = $this->given($said, $speech, $targets, $rest);
                }
            }
            $needs[$k] = $last;
        }

        return $needs;
    }

    /**
     * @param list<float> $said
     * @param array<int, float> $speech
     * @param array<int, float> $targets
     * @param array<int, float> $rest
     */
    private function given(array $said, array $speech, array $targets, array $rest): Given
    {
        $wanted = $this->wanted;
        $now = $this->index($said, $targets, $rest, 0.0, DuckPart::All);
        if ($now >= $wanted) {
            return new Given(0.0);
        }
        $deepest = $this->rule->deepest;
        $part = $this->rule->part;
        $most = $this->index($said, $targets, $rest, $deepest, $part);
        if ($most < $wanted && $part !== $this->last()) {
            $part = $this->last();
            $most = $this->index($said, $targets, $rest, $deepest, $part);
        }
        $enough = $most >= $wanted;
        $depth = $this->depth($said, $targets, $rest, [$deepest, $most], $now, $enough ? $wanted : $most - self::NEAR, $part);
        [$all, $band] = $part->split($depth);

        return new Given($all, $band, $enough, $enough ? 0.0 : $this->lift($speech, $targets, $rest, $wanted));
    }

    /**
     * Where two ends enclose it, a straight line between them comes near at once: the index is nearly that.
     *
     * @param list<float> $said
     * @param array<int, float> $targets
     * @param array<int, float> $rest
     * @param array{float, float} $low depth and index at the deepest
     *
     * @return float dB, never short of what is sought
     */
    private function depth(array $said, array $targets, array $rest, array $low, float $now, float $sought, DuckPart $part): float
    {
        if ($now >= $sought) {
            return 0.0;
        }
        $high = [0.0, $now];
        for ($i = 0; $i < self::ROUNDS && $low[1] - $sought > self::CLOSE; ++$i) {
            $place = ($sought + 0.5 * self::CLOSE - $high[1]) / max(1e-9, $low[1] - $high[1]);
            $middle = $high[0] + max(0.1, min(0.9, $place)) * ($low[0] - $high[0]);
            $index = $this->index($said, $targets, $rest, $middle, $part);
            $index >= $sought ? $low = [$middle, $index] : $high = [$middle, $index];
        }

        return $low[0];
    }

    /** What gives way where the band, and what the limit leaves for the rest, do not do: all of it alike. */
    private function last(): DuckPart
    {
        return DuckPart::BandFirst === $this->rule->part ? DuckPart::All : $this->rule->part;
    }

    /**
     * @param array<int, float> $speech
     * @param array<int, float> $targets
     * @param array<int, float> $rest
     */
    private function lift(array $speech, array $targets, array $rest, float $wanted): float
    {
        $lift = 0.0;
        do {
            ++$lift;
            $louder = $this->ear->said(array_map(static fn (float $power): float => $power * 10.0 ** ($lift / 10.0), $speech));
        } while ($lift < Fix::HIGHEST && $this->index($louder, $targets, $rest, $this->rule->deepest, $this->last()) < $wanted);

        return $lift;
    }

    /**
     * @param list<float> $said
     * @param array<int, float> $targets
     * @param array<int, float> $rest
     */
    private function index(array $said, array $targets, array $rest, float $depth, DuckPart $part): float
    {
        return $this->indexOf($said, $targets, $rest, ...$part->split($depth));
    }

    /**
     * @param list<float> $said
     * @param array<int, float> $targets
     * @param array<int, float> $rest
     */
    private function indexOf(array $said, array $targets, array $rest, float $all, float $band): float
    {
        $power = 10.0 ** ($all / 10.0);
        $left = 10.0 ** ($band / 20.0);
        $whole = 0.0 === $band;
        foreach ($this->shares as $i => [$none, $once, $twice]) {
            $rest[$i] += $targets[$i] * $power * ($whole ? 1.0 : $none + $left * ($once + $left * $twice));
        }

        return $this->ear->indexOf($said, $rest);
    }
}
