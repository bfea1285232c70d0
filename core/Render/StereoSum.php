<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Signal\PcmDecoder;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Signal\Words;
use Wattage\Core\Time\Span;

/**
 * The sum of what sounds during one piece. The loops here are where rendering spends its time: they keep to local
 * variables, and take the array out of the object while they write so that it is never copied.
 */
final class StereoSum
{
    /** @var array<int, float> */
    private array $samples;

    public function __construct(private readonly Span $piece)
    {
        $this->samples = array_fill(0, 2 * $piece->length(), 0.0);
    }

    /** @return array<int, float> interleaved stereo, full scale ±1.0 */
    public function samples(): array
    {
        return $this->samples;
    }

    /**
     * @param string $bytes as many frames as the steps have together
     * @param int $at timeline position of the first
     * @param list<GainStep> $steps
     */
    public function add(string $bytes, PcmFormat $format, int $at, array $steps, Routing $routing): void
    {
        $start = 2 * ($at - $this->piece->from);
        if (2 === $format->channels && $routing->isStraight()) {
            if (16 === $format->bits && $this->areMultiples($steps, 2)) {
                $this->addPairs($bytes, $start, $steps);

                return;
            }
            if (24 === $format->bits && $this->areMultiples($steps, 4)) {
                $this->addQuads($bytes, $start, $steps);

                return;
            }
        }
        $input = PcmDecoder::decode($bytes, $format);
        $scale = 1.0 / $format->fullScale();
        $i = 0;
        $o = $start;
        foreach ($steps as $step) {
            match (true) {
                1 === $format->channels => $this->addMono($input, $i, $o, $step, $scale, $routing->leftToLeft + $routing->rightToLeft, $routing->leftToRight + $routing->rightToRight),
                $routing->isStraight() => $this->addStereo($input, $i, $o, $step, $scale),
                default => $this->addPanned($input, $i, $o, $step, $scale, $routing),
            };
            $i += $step->frames * $format->channels;
            $o += 2 * $step->frames;
        }
    }

    /** @param list<GainStep> $steps */
    private function areMultiples(array $steps, int $of): bool
    {
        foreach ($steps as $step) {
            if (0 !== $step->frames % $of) {
                return false;
            }
        }

        return true;
    }

    /**
     * The commonest case, 16-bit stereo: two frames from each 8-byte integer, added without a list of samples in between.
     *
     * @param list<GainStep> $steps each with an even number of frames
     */
    private function addPairs(string $bytes, int $o, array $steps): void
    {
        $step = reset($steps);
        if (false === $step) {
            return;
        }
        $sum = $this->samples;
        $this->samples = [];
        $end = $o + 2 * $step->frames;
        [$gain, $factor, $slope] = [$step->gain / 32768.0, $step->factor, $step->slope / 32768.0];
        foreach (Words::groupsOf($bytes) as $words) {
            foreach ($words as $word) {
                if ($o === $end && false !== ($step = next($steps))) {
                    $end = $o + 2 * $step->frames;
                    [$gain, $factor, $slope] = [$step->gain / 32768.0, $step->factor, $step->slope / 32768.0];
                }
                $sum[$o] += (($word << 48) >> 48) * $gain;
                $sum[$o + 1] += (($word << 32) >> 48) * $gain;
                $gain = $gain * $factor + $slope;
                $sum[$o + 2] += (($word << 16) >> 48) * $gain;
                $sum[$o + 3] += ($word >> 48) * $gain;
                $gain = $gain * $factor + $slope;
                $o += 4;
            }
        }
        $this->samples = $sum;
    }

    /**
     * 24-bit stereo: four frames from three 8-byte integers.
     *
     * @param list<GainStep> $steps each with a number of frames that four divides
     */
    private function addQuads(string $bytes, int $o, array $steps): void
    {
        $step = reset($steps);
        if (false === $step) {
            return;
        }
        $sum = $this->samples;
        $this->samples = [];
        $end = $o + 2 * $step->frames;
        [$gain, $factor, $slope] = [$step->gain / 8388608.0, $step->factor, $step->slope / 8388608.0];
        foreach (Words::groupsOf($bytes) as $group) {
            $words = array_values($group);
            for ($w = 0, $n = \count($words); $w < $n; $w += 3) {
                if ($o === $end && false !== ($step = next($steps))) {
                    $end = $o + 2 * $step->frames;
                    [$gain, $factor, $slope] = [$step->gain / 8388608.0, $step->factor, $step->slope / 8388608.0];
                }
                $a = $words[$w];
                $b = $words[$w + 1];
                $c = $words[$w + 2];
                $sum[$o] += (($a << 40) >> 40) * $gain;
                $sum[$o + 1] += (($a << 16) >> 40) * $gain;
                $gain = $gain * $factor + $slope;
                $sum[$o + 2] += ((($b << 56) >> 40) | (($a >> 48) & 0xFFFF)) * $gain;
                $sum[$o + 3] += (($b << 32) >> 40) * $gain;
                $gain = $gain * $factor + $slope;
                $sum[$o + 4] += (($b << 8) >> 40) * $gain;
                $sum[$o + 5] += ((($c << 48) >> 40) | (($b >> 56) & 0xFF)) * $gain;
                $gain = $gain * $factor + $slope;
                $sum[$o + 6] += (($c << 24) >> 40) * $gain;
                $sum[$o + 7] += ($c >> 40) * $gain;
                $gain = $gain * $factor + $slope;
                $o += 8;
            }
        }
        $this->samples = $sum;
    }

    /** @param array<int, int> $input */
    private function addStereo(array $input, int $i, int $o, GainStep $step, float $scale): void
    {
        $sum = $this->samples;
        $this->samples = [];
        $gain = $step->gain * $scale;
        $factor = $step->factor;
        $slope = $step->slope * $scale;
        for ($end = $o + 2 * $step->frames; $o < $end; $o += 2, $i += 2) {
            $sum[$o] += $input[$i] * $gain;
            $sum[$o + 1] += $input[$i + 1] * $gain;
            $gain = $gain * $factor + $slope;
        }
        $this->samples = $sum;
    }

    /** @param array<int, int> $input */
    private function addMono(array $input, int $i, int $o, GainStep $step, float $scale, float $toLeft, float $toRight): void
    {
        $sum = $this->samples;
        $this->samples = [];
        $gain = $step->gain * $scale;
        $factor = $step->factor;
        $slope = $step->slope * $scale;
        for ($end = $o + 2 * $step->frames; $o < $end; $o += 2, ++$i) {
            $sample = $input[$i] * $gain;
            $sum[$o] += $sample * $toLeft;
            $sum[$o + 1] += $sample * $toRight;
            $gain = $gain * $factor + $slope;
        }
        $this->samples = $sum;
    }

    /** @param array<int, int> $input */
    private function addPanned(array $input, int $i, int $o, GainStep $step, float $scale, Routing $routing): void
    {
        $sum = $this->samples;
        $this->samples = [];
        [$ll, $rl, $lr, $rr] = [$routing->leftToLeft, $routing->rightToLeft, $routing->leftToRight, $routing->rightToRight];
        $gain = $step->gain * $scale;
        $factor = $step->factor;
        $slope = $step->slope * $scale;
        for ($end = $o + 2 * $step->frames; $o < $end; $o += 2, $i += 2) {
            $left = $input[$i] * $gain;
            $right = $input[$i + 1] * $gain;
            $sum[$o] += $left * $ll + $right * $rl;
            $sum[$o + 1] += $left * $lr + $right * $rr;
            $gain = $gain * $factor + $slope;
        }
        $this->samples = $sum;
    }
}
