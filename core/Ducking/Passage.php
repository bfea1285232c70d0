<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Clarity\Ear;
use Wattage\Core\Timeline\DuckPart;

/** What is said and what covers it in one short window, and how much of it is understood when some of that gives way. */
final readonly class Passage
{
    /**
     * @param list<array{float, float, float}> $shares of each band: see {@see BandShares::byBand()}
     * @param list<float> $said see {@see Ear::said()}
     * @param array<int, float> $targets power by band of what gives way
     * @param array<int, float> $rest likewise, of all else
     */
    public function __construct(private Ear $ear, private array $shares, private array $said, private array $targets, private array $rest)
    {
    }

    /** The same words, louder by so many dB. */
    public function louder(float $lift): self
    {
        return new self($this->ear, $this->shares, array_map(static fn (float $level): float => $level + $lift, $this->said), $this->targets, $this->rest);
    }

    /**
     * @param float $depth dB by which a part of the targets is down
     *
     * @return float 0 … 1
     */
    public function index(float $depth, DuckPart $part): float
    {
        return $this->indexOf(...$part->split($depth));
    }

    /**
     * @param float $all dB by which the targets are down
     * @param float $band dB by which their band of speech is besides
     *
     * @return float 0 … 1
     */
    public function indexOf(float $all, float $band): float
    {
        [$rest, $targets] = [$this->rest, $this->targets];
        $power = 10.0 ** ($all / 10.0);
        $left = 10.0 ** ($band / 20.0);
        $whole = 0.0 === $band;
        foreach ($this->shares as $i => [$none, $once, $twice]) {
            $rest[$i] += $targets[$i] * $power * ($whole ? 1.0 : $none + $left * ($once + $left * $twice));
        }

        return $this->ear->indexOf($this->said, $rest);
    }
}
