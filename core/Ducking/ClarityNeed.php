<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Closure;
use Wattage\Core\Clarity\Clarity;
use Wattage\Core\Clarity\Ear;
use Wattage\Core\Speech\Fix;
use Wattage\Core\Timeline\DuckPart;
use Wattage\Core\Timeline\DuckRule;

/** As far as a clarity needs: {@see Clarity} at each moment, with the targets as far down as it takes. What one moment needs is where the next is begun with. */
final class ClarityNeed implements Need
{
    /** On top of what is wanted, 0 … 100: bands are rounded to half decibels, and lanes to a quarter. */
    private const MARGIN = 1.0;
    /** Where it cannot be reached, as deep as comes so near to what could be; more would only take the music away. */
    private const NEAR = 0.01;

    /** @var ?array<int, Given> */
    private ?array $needs = null;
    private readonly float $wanted;
    private readonly DepthSearch $search;
    /** @var array{float, bool, float} of the moment before: dB by which something is down, whether that is enough, and the lift that would be if it is not */
    private array $before = [0.0, true, 1.0];

    /**
     * @param Closure(): iterable<int, ?array{array<int, float>, array<int, float>, array<int, float>}> $moments powers by band of the speech, of the targets and of all else, by number of the 100 ms; null where the one before holds
     * @param list<array{float, float, float}> $shares of each band: see {@see BandShares::byBand()}
     */
    public function __construct(private readonly DuckRule $rule, private readonly Ear $ear, private readonly Closure $moments, private readonly array $shares)
    {
        $this->wanted = min(1.0, ((float) $rule->clarity + self::MARGIN) / Clarity::MOST);
        $this->search = new DepthSearch($rule->deepest);
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
                $passage = Passage::of($this->ear, $this->shares, ...$powers);
                if (0 === $worked++ % 2 || $passage->indexOf($last->all, $last->band) < $this->wanted) {
                    $last = $this->given($passage);
                }
            }
            $needs[$k] = $last;
        }

        return $needs;
    }

    private function given(Passage $passage): Given
    {
        [$begin, $isEnough, $lift] = $this->before;
        $part = $this->rule->part;
        $from = $isEnough ? $begin : $this->rule->deepest;
        [$depth, $index] = $this->search->to($this->wanted, $passage, $part, $from);
        if ($index < $this->wanted && $part !== $this->last()) {
            $part = $this->last();
            [$depth, $index] = $this->search->to($this->wanted, $passage, $part, $from);
        }
        $enough = $index >= $this->wanted;
        if (!$enough) {
            [$depth] = $this->search->to($index - self::NEAR, $passage, $part, $begin);
            $lift = $this->lift($passage, $lift);
        }
        $this->before = [$depth, $enough, $lift];
        [$all, $band] = $part->split($depth);

        return new Given($all, $band, $enough, $enough ? 0.0 : $lift);
    }

    /** What gives way where the band, and what the limit leaves for the rest, do not do: all of it alike. */
    private function last(): DuckPart
    {
        return DuckPart::BandFirst === $this->rule->part ? DuckPart::All : $this->rule->part;
    }

    /** @return float whole dB that the speech would have to be louder, of those at which it would do with the targets as far down as they go */
    private function lift(Passage $passage, float $lift): float
    {
        $does = fn (float $lift): bool => $passage->louder($lift)->index($this->rule->deepest, $this->last()) >= $this->wanted;
        if ($does($lift)) {
            while ($lift > 1.0 && $does($lift - 1.0)) {
                --$lift;
            }

            return $lift;
        }
        do {
            ++$lift;
        } while ($lift < Fix::HIGHEST && !$does($lift));

        return min($lift, Fix::HIGHEST);
    }
}
