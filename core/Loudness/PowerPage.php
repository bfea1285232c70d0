<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Curve\Stretch;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Timeline\Clip;

/** Adds up how loud clips are, every 100 ms of a part of the timeline. */
final class PowerPage
{
    /** @var array<int, float> K-weighted mean square of each 100 ms, summed over left and right; numbered from the start of the page */
    public array $powers;

    /** @var array<int, float> no sample of each 100 ms is higher, full scale is 1 */
    public array $peaks;

    /**
     * @param int $first number of the first 100 ms
     * @param int $count of them
     * @param int $frames samples of 100 ms
     */
    public function __construct(private readonly int $first, private readonly int $count, private readonly int $frames)
    {
        $this->powers = $this->peaks = array_fill(0, $count, 0.0);
    }

    /** @param list<Stretch> $stretches gain of the clip by source position */
    public function add(Clip $clip, array $stretches, Routing $r, float $fader, SourceTenths $tenths): void
    {
        $left = $r->leftToLeft ** 2 + $r->leftToRight ** 2;
        $right = $r->rightToLeft ** 2 + $r->rightToRight ** 2;
        // A mono recording is the same sound on both inputs, so that their gains add up before they are squared.
        $alone = ($r->leftToLeft + $r->rightToLeft) ** 2 + ($r->leftToRight + $r->rightToRight) ** 2;
        $highest = max(abs($r->leftToLeft) + abs($r->rightToLeft), abs($r->leftToRight) + abs($r->rightToRight));
        $stereo = 2 === $tenths->channels();
        $this->addStretches($clip, $stretches, $tenths, $stereo ? $left : $alone, $stereo ? $right : 0.0, $r->isStraight() ? 1.0 : $highest, $fader);
    }

    /**
     * One loop for all of it, since an hour of eight tracks is worked out after every edit.
     *
     * @param list<Stretch> $stretches
     * @param float $first square of the gain of the first channel
     * @param float $second of the second
     * @param float $spread how far channels that are added may pass the louder of them
     */
    private function addStretches(Clip $clip, array $stretches, SourceTenths $tenths, float $first, float $second, float $spread, float $fader): void
    {
        $frames = $this->frames;
        $shift = $clip->at - $clip->in;
        $begin = $this->first;
        // What of the source may sound within this page, and one more on either side.
        $skipped = max(0, intdiv($begin * $frames - $shift, $frames) - 1);
        $wanted = $this->count + 3;
        $one = $tenths->powers[0]->slice($skipped, $wanted);
        $two = $second > 0.0 ? $tenths->powers[1]->slice($skipped, $wanted) : [];
        $top = $tenths->peaks->slice($skipped, $wanted);
        $last = \count($one) - 1;
        $edges = [];
        foreach ($stretches as $stretch) {
            $from = $stretch->from + $shift;
            $to = $stretch->to + $shift;
            $k = max($begin, intdiv($from, $frames));
            $end = min($begin + $this->count, intdiv($to - 1, $frames) + 1);
            if ($k >= $end) {
                continue;
            }
            $constant = $stretch->isConstant();
            $gain = $next = $fader * $stretch->gainAt(max($stretch->from, $k * $frames - $shift));
            for (; $k < $end; ++$k) {
                $start = $k * $frames < $from ? $from : $k * $frames;
                $stop = ($k + 1) * $frames > $to ? $to : ($k + 1) * $frames;
                // The sound lies across two tenths of its source.
                $place = (0.5 * ($start + $stop) - $shift) / $frames - 0.5 - $skipped;
                $j = $place <= 0.0 ? 0 : (int) $place;
                if ($j > $last) {
                    break;
                }
                $after = $j < $last ? $j + 1 : $j;
                $part = $place <= 0.0 ? 0.0 : $place - $j;
                if (!$constant) {
                    $gain = $next;
                    $next = $fader * $stretch->gainAt($stop - $shift);
                }
                $power = $first * ($one[$j] + $part * ($one[$after] - $one[$j]));
                if ($second > 0.0) {
                    $power += $second * ($two[$j] + $part * ($two[$after] - $two[$j]));
                }
                // The mean of the square of a gain that goes straight from one to the other.
                $this->powers[$k - $begin] += $power * ($gain * $gain + $gain * $next + $next * $next) / 3.0 * ($stop - $start) / $frames;
                $peak = $top[$j] > $top[$after] ? $top[$j] : $top[$after];
                $peak *= $spread * ($gain > $next ? $gain : $next);
                if ($stop - $start === $frames) {
                    $this->peaks[$k - $begin] += $peak;
                } elseif ($peak > ($edges[$k] ?? 0.0)) {
                    $edges[$k] = $peak;
                }
            }
        }
        foreach ($edges as $k => $peak) {
            $this->peaks[$k - $begin] += $peak;
        }
    }
}
