<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Closure;
use Wattage\Core\Bands\ThirdOctaves;
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
    private const HALVINGS = 7;
    /** Where it cannot be reached, as deep as comes so near to what could be; more would only take the music away. */
    private const NEAR = 0.01;

    /** @var ?array<int, Given> */
    private ?array $needs = null;

    /**
     * @param Closure(): iterable<int, ?array{array<int, float>, array<int, float>, array<int, float>}> $moments powers by band of the speech, of the targets and of all else, by number of the 100 ms; null where the one before holds
     * @param list<array{float, float, float}> $shares of each band: see {@see BandShares::byBand()}
     */
    public function __construct(private readonly DuckRule $rule, private readonly Ear $ear, private readonly Closure $moments, private readonly array $shares)
    {
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
        foreach (($this->moments)() as $k => $powers) {
            $last = null === $powers ? $last : $this->given(...$powers);
            $needs[$k] = $last;
        }

        return $needs;
    }

    /**
     * @param array<int, float> $speech
     * @param array<int, float> $targets
     * @param array<int, float> $rest
     */
    private function given(array $speech, array $targets, array $rest): Given
    {
        $wanted = min(1.0, ((float) $this->rule->clarity + self::MARGIN) / Clarity::MOST);
        if ($this->index($speech, $targets, $rest, 0.0) >= $wanted) {
            return new Given(0.0);
        }
        $deepest = $this->rule->deepest;
        $most = $this->index($speech, $targets, $rest, $deepest);
        $enough = $most >= $wanted;
        $sought = $enough ? $wanted : $most - self::NEAR;
        [$low, $high] = [$deepest, 0.0];
        for ($i = 0; $i < self::HALVINGS; ++$i) {
            $middle = 0.5 * ($low + $high);
            $this->index($speech, $targets, $rest, $middle) >= $sought ? $low = $middle : $high = $middle;
        }

        [$all, $band] = $this->rule->part->split($low);

        return new Given($all, $band, $enough, $enough ? 0.0 : $this->lift($speech, $targets, $rest, $deepest, $wanted));
    }

    /**
     * @param array<int, float> $speech
     * @param array<int, float> $targets
     * @param array<int, float> $rest
     */
    private function lift(array $speech, array $targets, array $rest, float $depth, float $wanted): float
    {
        $lift = 0.0;
        do {
            ++$lift;
            $louder = array_map(static fn (float $power): float => $power * 10.0 ** ($lift / 10.0), $speech);
        } while ($lift < Fix::HIGHEST && $this->index($louder, $targets, $rest, $depth) < $wanted);

        return $lift;
    }

    /**
     * @param array<int, float> $speech
     * @param array<int, float> $targets
     * @param array<int, float> $rest
     */
    private function index(array $speech, array $targets, array $rest, float $depth): float
    {
        [$all, $band] = $this->rule->part->split($depth);
        $power = 10.0 ** ($all / 10.0);
        $left = 10.0 ** ($band / 20.0);
        for ($i = 0; $i < ThirdOctaves::COUNT; ++$i) {
            [$none, $once, $twice] = $this->shares[$i];
            $rest[$i] += $targets[$i] * $power * (DuckPart::All === $this->rule->part ? 1.0 : $none + $left * ($once + $left * $twice));
        }

        return $this->ear->index($speech, $rest);
    }
}
