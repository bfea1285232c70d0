<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Clarity\Ear;
use Wattage\Core\Clarity\SpeechIndex;
use Wattage\Core\Timeline\DuckPart;

/** What is said and what covers it in one short window, and how much of it is understood when some of that gives way. */
final readonly class Passage
{
    /**
     * @param list<array{float, float, float}> $shares of each band: see {@see BandShares::byBand()}
     * @param list<float> $said see {@see Ear::said()}
     * @param list<float> $targets power by band of what gives way, at the ear
     * @param list<float> $rest likewise, of all else
     */
    private function __construct(private Ear $ear, private array $shares, private array $said, private array $targets, private array $rest)
    {
    }

    /**
     * @param list<array{float, float, float}> $shares
     * @param array<int, float> $speech power by band
     * @param array<int, float> $targets likewise, of what gives way
     * @param array<int, float> $rest likewise, of all else
     */
    public static function of(Ear $ear, array $shares, array $speech, array $targets, array $rest): self
    {
        return new self($ear, $shares, $ear->said($speech), $ear->reaching($targets), $ear->disturbing($rest));
    }

    /** @return float how loud all else is against the speech; only for telling which of two needs more */
    public function covered(): float
    {
        $covered = 0.0;
        foreach (SpeechIndex::IMPORTANCE as $band => $importance) {
            $covered += $importance * (log($this->targets[$band] + $this->rest[$band] + 1e-3) - 0.23 * $this->said[$band]);
        }

        return $covered;
    }

    /** The same words, louder by so many dB. */
    public function louder(float $lift): self
    {
        $said = $this->said;
        foreach ($said as $band => $level) {
            $said[$band] = $level + $lift;
        }

        return new self($this->ear, $this->shares, $said, $this->targets, $this->rest);
    }

    /**
     * @param float $depth dB by which a part of the targets is down
     *
     * @return float 0 … 1
     */
    public function index(float $depth, DuckPart $part): float
    {
        [$all, $band] = $part->split($depth);

        return $this->indexOf($all, $band);
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
        if (0.0 === $band) {
            foreach ($targets as $i => $one) {
                $rest[$i] += $one * $power;
            }
        } else {
            foreach ($this->shares as $i => [$none, $once, $twice]) {
                $rest[$i] += $targets[$i] * $power * ($none + $left * ($once + $left * $twice));
            }
        }

        return $this->ear->indexOf($this->said, $rest);
    }
}
