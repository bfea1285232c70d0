<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

/**
 * How far a peak guard turns down, from what is needed at each moment.
 *
 * Attack: what is needed is held for as long as the smoothing looks ahead, and the smoothing is two running means one after the other. So
 * the way down begins 5 ms before a peak, has no corner, is at its end when the peak comes, and never falls short of what that needs.
 * Release: in two speeds. After a short peak half of it has gone in 40 ms, quickly enough to leave no hole in the sound; what lasts for
 * half a second and more is let go ten times as slowly, so that the level does not breathe.
 *
 * Time goes in steps; levels are whole millionths of a dB, so that sums which run along come back to nothing exactly.
 */
final class GuardEnvelope
{
    /** Steps in a second. */
    public const STEPS = 3000;

    /** Units in a dB. */
    public const UNIT = 1_000_000;

    /** Steps in each running mean. */
    private const MEAN = 8;

    /** Steps for which a need is held, and from which on it is known before its time comes. */
    public const AHEAD = 2 * self::MEAN - 1;

    /** How much is left of it from one step to the next: half in 40 ms, or half in 400 ms. */
    private const QUICK = 0.99424;
    private const SLOW = 0.999423;

    /** What part of the way the slow one goes up in a step. */
    private const FOLLOW = 0.0008;

    /** What it rises to after a few short peaks does not count: 0.5 dB. */
    private const SHORT = 500_000;

    /** Less than this is nothing: 0.02 dB. */
    private const LEAST = 20_000;

    /** @var array<int, int> by step, to come */
    private array $needs = [];

    /** @var array<int, int> by step, held */
    private array $held = [];
    private float $quick = 0.0;
    private float $slow = 0.0;

    /** @var array<int, int> the last MEAN levels */
    private array $levels;

    /** @var array<int, int> the last MEAN sums of them */
    private array $sums;
    private int $sumOfLevels = 0;
    private int $sumOfSums = 0;

    /** The next step whose level is worked out; what is taken lies behind by the smoothing. */
    private int $next = 0;

    public function __construct()
    {
        $this->levels = $this->sums = array_fill(0, self::MEAN, 0);
    }

    /**
     * @param int $step not taken yet, and no earlier than AHEAD − 1 beyond the last that is
     * @param float $db how far down it must be there, above 0
     */
    public function need(int $step, float $db): void
    {
        $this->needs[$step] = max($this->needs[$step] ?? 0, (int) ceil($db * self::UNIT));
    }

    /**
     * The next steps, once what is needed is known up to AHEAD beyond them.
     *
     * @return list<int> how far down at the beginning of each
     */
    public function take(int $steps): array
    {
        $lead = 0 === $this->next ? self::AHEAD - 1 : 0;
        if ([] === $this->needs && [] === $this->held && 0 === $this->sumOfSums && 0.0 === $this->quick && 0.0 === $this->slow) {
            $this->next += $lead + $steps;

            return array_fill(0, $steps, 0);
        }

        return \array_slice($this->run($lead + $steps), $lead);
    }

    /** @return list<int> */
    private function run(int $steps): array
    {
        $taken = [];
        for ($end = $this->next + $steps; $this->next < $end; ++$this->next) {
            $level = $this->level($this->next);
            $place = $this->next % self::MEAN;
            $this->sumOfLevels += $level - $this->levels[$place];
            $this->levels[$place] = $level;
            $this->sumOfSums += $this->sumOfLevels - $this->sums[$place];
            $this->sums[$place] = $this->sumOfLevels;
            $taken[] = intdiv($this->sumOfSums + self::MEAN ** 2 - 1, self::MEAN ** 2);
        }

        return $taken;
    }

    /** Held, and let go. */
    private function level(int $step): int
    {
        $needed = $this->held($step);
        $this->quick = max($needed, self::QUICK * $this->quick);
        $this->quick < self::LEAST && $this->quick = 0.0;
        $this->slow = $this->quick > $this->slow ? $this->slow + self::FOLLOW * ($this->quick - $this->slow) : self::SLOW * $this->slow;
        $this->slow < self::LEAST && 0.0 === $this->quick && $this->slow = 0.0;

        return (int) ceil(max($this->quick, $this->slow - self::SHORT));
    }

    /** The most that was needed within AHEAD before: of the needs in that time, those that no later one passes are kept, in falling order. */
    private function held(int $step): int
    {
        if (isset($this->needs[$step])) {
            $need = $this->needs[$step];
            unset($this->needs[$step]);
            while ([] !== $this->held && end($this->held) <= $need) {
                array_pop($this->held);
            }
            $this->held[$step] = $need;
        }
        $oldest = array_key_first($this->held);
        if (null !== $oldest && $oldest < $step - self::AHEAD) {
            unset($this->held[$oldest]);
        }

        return [] === $this->held ? 0 : reset($this->held);
    }
}
