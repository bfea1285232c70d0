<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Closure;
use Generator;
use Iterator;
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
    /** @var ?Iterator<int, ?array{array<int, float>, array<int, float>, array<int, float>}> */
    private ?Iterator $stream = null;
    /** Number of the 100 ms up to which the stream has been followed. */
    private int $followed = 0;
    /** @var ?array{array<int, float>, array<int, float>, array<int, float>} what it had last, and which may hold for one more */
    private ?array $holds = null;

    /**
     * @param Closure(): Iterator<int, ?array{array<int, float>, array<int, float>, array<int, float>}> $moments powers by band of the speech, of the targets and of all else, by number of the 100 ms; null where the one before holds
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

    public function furthest(int $from, int $to): Given
    {
        if ($this->rule->moving) {
            return Given::furthest($this->between($from, $to));
        }
        $passages = iterator_to_array($this->windows($from, $to), false);
        // Those that are covered most come first: once they are clear most others are, and are asked only that.
        $covered = array_map(static fn (Passage $passage): float => $passage->covered(), $passages);
        arsort($covered);
        $furthest = new Given(0.0);
        foreach (array_keys($covered) as $i) {
            $passage = $passages[$i];
            $index = $passage->indexOf($furthest->all, $furthest->band);
            if ($index >= $this->wanted) {
                continue;
            }
            $furthest = !$furthest->enough && $this->isAsNear($index, $passage)
                ? new Given($furthest->all, $furthest->band, false, $this->lift($passage, $furthest->lift))
                : Given::furthest([$furthest, $this->given($passage)])->within($this->rule->deepest);
        }

        return $furthest;
    }

    /** Whether it cannot be reached, and hardly more could be. */
    private function isAsNear(float $index, Passage $passage): bool
    {
        $most = $passage->index($this->rule->deepest, $this->last());

        return $most < $this->wanted && $index >= $most - self::NEAR;
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

    /** @return Generator<Passage> of a stretch; one after another they are had without going through all of it again */
    private function windows(int $from, int $to): Generator
    {
        if (null === $this->stream || $from < $this->followed) {
            $this->stream = ($this->moments)();
            $this->holds = null;
        }
        $this->followed = $to;
        for (; $this->stream->valid() && $this->stream->key() < $to; $this->stream->next()) {
            $powers = $this->stream->current();
            $isFirst = $this->stream->key() <= $from;
            $this->holds = $powers ?? $this->holds;
            if ($this->stream->key() >= $from && null !== $this->holds && (null !== $powers || $isFirst)) {
                yield Passage::of($this->ear, $this->shares, ...$this->holds);
            }
        }
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
            while ($lift > 1.0 && $this->does($passage, $lift - 1.0)) {
                --$lift;
            }
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

    /** @return float dB that the speech would have to be louder, with the targets as far down as they go: so many at least, and then one after another */
    private function lift(Passage $passage, float $lift): float
    {
        while ($lift < Fix::HIGHEST && !$this->does($passage, $lift)) {
            ++$lift;
        }

        return $lift;
    }

    /** Whether such a lift is enough with the targets as far down as they go. */
    private function does(Passage $passage, float $lift): bool
    {
        return $passage->louder($lift)->index($this->rule->deepest, $this->last()) >= $this->wanted;
    }
}
