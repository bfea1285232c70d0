<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Level\Decibels;

/** Dips as one curve: where they lie over one another the deeper holds, and where there is no room to come back up it stays down. */
final class LaneBuilder
{
    /** @var list<Keyframe> */
    private array $keyframes = [];

    /** @param list<Dip> $dips in any order */
    public static function of(array $dips): Curve
    {
        $builder = new self();
        $last = null;
        foreach (self::apart($dips) as $dip) {
            $builder->join($last, $dip);
            $last = $dip;
        }
        $builder->up($last);

        return Curve::of($builder->keyframes);
    }

    /**
     * @param list<Dip> $dips
     *
     * @return list<Dip> in order, none over another, the deeper where there were several
     */
    private static function apart(array $dips): array
    {
        $edges = [];
        foreach ($dips as $dip) {
            $edges[] = $dip->from;
            $edges[] = $dip->to;
        }
        $edges = array_values(array_unique($edges));
        sort($edges);
        usort($dips, static fn (Dip $a, Dip $b): int => $a->from <=> $b->from);
        $apart = [];
        $open = [];
        $next = 0;
        for ($i = 1, $n = \count($edges); $i < $n; ++$i) {
            [$from, $to] = [$edges[$i - 1], $edges[$i]];
            while (isset($dips[$next]) && $dips[$next]->from <= $from) {
                $open[] = $dips[$next++];
            }
            $open = array_filter($open, static fn (Dip $dip): bool => $dip->to > $from);
            $deepest = array_reduce($open, static fn (?Dip $a, Dip $b): Dip => null === $a || $b->depth < $a->depth ? $b : $a);
            if (null === $deepest) {
                continue;
            }
            $last = array_pop($apart);
            if (null !== $last && $last->to === $from && $last->depth === $deepest->depth) {
                $apart[] = (new Dip($last->from, $to, $last->depth, $last->fall, $deepest->rise));
            } else {
                null === $last || $apart[] = $last;
                $apart[] = $deepest->over($from, $to);
            }
        }

        return $apart;
    }

    private function join(?Dip $last, Dip $dip): void
    {
        if (null === $last || $dip->from - $last->to >= $last->rise + $dip->fall) {
            $this->up($last);
            $this->add(max(0, $dip->from - $dip->fall), 0.0, Ramp::smooth());
            $this->add($dip->from, $dip->depth, Ramp::line());
        } elseif ($dip->depth < $last->depth) {
            $this->add(max($last->from + 1, $dip->from - $dip->fall), $last->depth, Ramp::smooth());
            $this->add($dip->from, $dip->depth, Ramp::line());
        } elseif ($dip->depth > $last->depth) {
            $this->add($last->to, $last->depth, Ramp::smooth());
            $this->add(min($last->to + $last->rise, $dip->to), $dip->depth, Ramp::line());
        }
    }

    private function up(?Dip $dip): void
    {
        if (null !== $dip) {
            $this->add($dip->to, $dip->depth, Ramp::smooth());
            $this->add($dip->to + $dip->rise, 0.0, Ramp::line());
        }
    }

    /** What would stand at or before the last one takes its place. */
    private function add(int $at, float $db, Ramp $ramp): void
    {
        while ([] !== $this->keyframes && $this->keyframes[\count($this->keyframes) - 1]->position >= $at) {
            array_pop($this->keyframes);
        }
        $this->keyframes[] = new Keyframe($at, Decibels::of($db), $ramp);
    }
}
