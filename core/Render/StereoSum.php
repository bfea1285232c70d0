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
        $this->addSamples(PcmDecoder::decode($bytes, $format), 0, $format->channels, 1.0 / $format->fullScale(), $at, $steps, $routing);
    }

    /**
     * @param array<int, int|float> $input interleaved
     * @param int $i place in it of the first sample
     * @param float $scale what makes full scale of it 1.0
     * @param int $at timeline position of the first
     * @param list<GainStep> $steps
     */
    public function addSamples(array $input, int $i, int $channels, float $scale, int $at, array $steps, Routing $routing): void
    {
        $o = 2 * ($at - $this->piece->from);
        foreach ($steps as $step) {
            match (true) {
                1 === $channels => $this->addMono($input, $i, $o, $step, $scale, $routing->leftToLeft + $routing->rightToLeft, $routing->leftToRight + $routing->rightToRight),
                $routing->isStraight() => $this->addStereo($input, $i, $o, $step, $scale),
                default => $this->addPanned($input, $i, $o, $step, $scale, $routing),
            };
            $i += $step->frames * $channels;
            $o += 2 * $step->frames;
        }
    }

    /** How many frames make a unit of a {@see Layer}: those that fill whole 8-byte integers; 0 where a format has no such loop. */
    public static function unitOf(PcmFormat $format): int
    {
        return 2 !== $format->channels ? 0 : match ($format->bits) {
            16 => 2,
            24 => 4,
            default => 0,
        };
    }

    /**
     * Stereo sources straight through, four at a time, so that the sum is read and written once for all four.
     *
     * @param list<Layer> $layers over the whole piece, which is a whole number of groups of words
     * @param int $bits 16 or 24
     */
    public function addLayers(array $layers, int $bits): void
    {
        foreach (array_chunk($layers, 4) as $four) {
            $bytes = array_map(static fn (Layer $layer): string => $layer->bytes, $four);
            16 === $bits ? $this->addFourOf16($bytes, Layer::changesOf($four)) : $this->addFourOf24($bytes, Layer::changesOf($four), Layer::tornOf($four));
        }
    }

    /**
     * 16 bits: two frames from each 8-byte integer, 240 of them at a time.
     *
     * @param list<string> $bytes
     * @param array<int, array<int, array{float, float, float}>> $changes
     */
    private function addFourOf16(array $bytes, array $changes): void
    {
        $sum = $this->samples;
        $this->samples = [];
        $units = \strlen($bytes[0]) >> 3;
        [$g, $f, $s] = [[0.0, 0.0, 0.0, 0.0], [1.0, 1.0, 1.0, 1.0], [0.0, 0.0, 0.0, 0.0]];
        $silence = array_fill(0, Words::GROUP, 0);
        $next = key($changes) ?? $units;
        for ($begin = $o = 0; $begin < $units; $begin += Words::GROUP) {
            $a = Words::group($bytes[0], 8 * $begin);
            $b = isset($bytes[1]) ? Words::group($bytes[1], 8 * $begin) : $silence;
            $c = isset($bytes[2]) ? Words::group($bytes[2], 8 * $begin) : $silence;
            $d = isset($bytes[3]) ? Words::group($bytes[3], 8 * $begin) : $silence;
            for ($i = 0; $i < Words::GROUP;) {
                if ($begin + $i === $next) {
                    foreach ($changes[$next] as $v => [$gain, $factor, $slope]) {
                        [$g[$v], $f[$v], $s[$v]] = [$gain / 32768.0, $factor, $slope / 32768.0];
                    }
                    next($changes);
                    $next = key($changes) ?? $units;
                }
                [$ga, $gb, $gc, $gd] = $g;
                [$fa, $fb, $fc, $fd] = $f;
                [$sa, $sb, $sc, $sd] = $s;
                for ($end = min(Words::GROUP, $next - $begin); $i < $end; ++$i) {
                    $wa = $a[$i];
                    $wb = $b[$i];
                    $wc = $c[$i];
                    $wd = $d[$i];
                    $sum[$o] += (($wa << 48) >> 48) * $ga + (($wb << 48) >> 48) * $gb + (($wc << 48) >> 48) * $gc + (($wd << 48) >> 48) * $gd;
                    $sum[$o + 1] += (($wa << 32) >> 48) * $ga + (($wb << 32) >> 48) * $gb + (($wc << 32) >> 48) * $gc + (($wd << 32) >> 48) * $gd;
                    $ga = $ga * $fa + $sa;
                    $gb = $gb * $fb + $sb;
                    $gc = $gc * $fc + $sc;
                    $gd = $gd * $fd + $sd;
                    $sum[$o + 2] += (($wa << 16) >> 48) * $ga + (($wb << 16) >> 48) * $gb + (($wc << 16) >> 48) * $gc + (($wd << 16) >> 48) * $gd;
                    $sum[$o + 3] += ($wa >> 48) * $ga + ($wb >> 48) * $gb + ($wc >> 48) * $gc + ($wd >> 48) * $gd;
                    $ga = $ga * $fa + $sa;
                    $gb = $gb * $fb + $sb;
                    $gc = $gc * $fc + $sc;
                    $gd = $gd * $fd + $sd;
                    $o += 4;
                }
                $g = [$ga, $gb, $gc, $gd];
            }
        }
        $this->samples = $sum;
    }

    /**
     * 24 bits: four frames from three 8-byte integers, 240 of these at a time.
     *
     * @param list<string> $bytes
     * @param array<int, array<int, array{float, float, float}>> $changes
     * @param array<int, array<int, list<float>>> $torn
     */
    private function addFourOf24(array $bytes, array $changes, array $torn): void
    {
        $sum = $this->samples;
        $this->samples = [];
        $units = intdiv(\strlen($bytes[0]), 24);
        [$g, $f, $s] = [[0.0, 0.0, 0.0, 0.0], [1.0, 1.0, 1.0, 1.0], [0.0, 0.0, 0.0, 0.0]];
        $silence = array_fill(0, Words::GROUP, 0);
        $next = key($changes) ?? $units;
        $together = intdiv(Words::GROUP, 3);
        for ($begin = $o = 0; $begin < $units; $begin += $together) {
            $a = Words::group($bytes[0], 24 * $begin);
            $b = isset($bytes[1]) ? Words::group($bytes[1], 24 * $begin) : $silence;
            $c = isset($bytes[2]) ? Words::group($bytes[2], 24 * $begin) : $silence;
            $d = isset($bytes[3]) ? Words::group($bytes[3], 24 * $begin) : $silence;
            for ($i = 0; $i < $together;) {
                if ($begin + $i === $next) {
                    foreach ($changes[$next] as $v => [$gain, $factor, $slope]) {
                        [$g[$v], $f[$v], $s[$v]] = [$gain / 8388608.0, $factor, $slope / 8388608.0];
                    }
                    next($changes);
                    $next = key($changes) ?? $units;
                }
                [$ga, $gb, $gc, $gd] = $g;
                [$fa, $fb, $fc, $fd] = $f;
                [$sa, $sb, $sc, $sd] = $s;
                for ($end = min($together, $next - $begin); $i < $end; ++$i) {
                    $w = 3 * $i;
                    $a0 = $a[$w];
                    $b0 = $b[$w];
                    $c0 = $c[$w];
                    $d0 = $d[$w];
                    $sum[$o] += (($a0 << 40) >> 40) * $ga + (($b0 << 40) >> 40) * $gb + (($c0 << 40) >> 40) * $gc + (($d0 << 40) >> 40) * $gd;
                    $sum[$o + 1] += (($a0 << 16) >> 40) * $ga + (($b0 << 16) >> 40) * $gb + (($c0 << 16) >> 40) * $gc + (($d0 << 16) >> 40) * $gd;
                    $ga = $ga * $fa + $sa;
                    $gb = $gb * $fb + $sb;
                    $gc = $gc * $fc + $sc;
                    $gd = $gd * $fd + $sd;
                    $a1 = $a[$w + 1];
                    $b1 = $b[$w + 1];
                    $c1 = $c[$w + 1];
                    $d1 = $d[$w + 1];
                    $sum[$o + 2] += ((($a1 << 56) >> 40) | (($a0 >> 48) & 0xFFFF)) * $ga + ((($b1 << 56) >> 40) | (($b0 >> 48) & 0xFFFF)) * $gb + ((($c1 << 56) >> 40) | (($c0 >> 48) & 0xFFFF)) * $gc + ((($d1 << 56) >> 40) | (($d0 >> 48) & 0xFFFF)) * $gd;
                    $sum[$o + 3] += (($a1 << 32) >> 40) * $ga + (($b1 << 32) >> 40) * $gb + (($c1 << 32) >> 40) * $gc + (($d1 << 32) >> 40) * $gd;
                    $ga = $ga * $fa + $sa;
                    $gb = $gb * $fb + $sb;
                    $gc = $gc * $fc + $sc;
                    $gd = $gd * $fd + $sd;
                    $a0 = $a[$w + 2];
                    $b0 = $b[$w + 2];
                    $c0 = $c[$w + 2];
                    $d0 = $d[$w + 2];
                    $sum[$o + 4] += (($a1 << 8) >> 40) * $ga + (($b1 << 8) >> 40) * $gb + (($c1 << 8) >> 40) * $gc + (($d1 << 8) >> 40) * $gd;
                    $sum[$o + 5] += ((($a0 << 48) >> 40) | (($a1 >> 56) & 0xFF)) * $ga + ((($b0 << 48) >> 40) | (($b1 >> 56) & 0xFF)) * $gb + ((($c0 << 48) >> 40) | (($c1 >> 56) & 0xFF)) * $gc + ((($d0 << 48) >> 40) | (($d1 >> 56) & 0xFF)) * $gd;
                    $ga = $ga * $fa + $sa;
                    $gb = $gb * $fb + $sb;
                    $gc = $gc * $fc + $sc;
                    $gd = $gd * $fd + $sd;
                    $sum[$o + 6] += (($a0 << 24) >> 40) * $ga + (($b0 << 24) >> 40) * $gb + (($c0 << 24) >> 40) * $gc + (($d0 << 24) >> 40) * $gd;
                    $sum[$o + 7] += ($a0 >> 40) * $ga + ($b0 >> 40) * $gb + ($c0 >> 40) * $gc + ($d0 >> 40) * $gd;
                    $ga = $ga * $fa + $sa;
                    $gb = $gb * $fb + $sb;
                    $gc = $gc * $fc + $sc;
                    $gd = $gd * $fd + $sd;
                    $o += 8;
                }
                $g = [$ga, $gb, $gc, $gd];
            }
            for ($number = key($torn); null !== $number && $number < $begin + $together; next($torn), $number = key($torn)) {
                $at = 8 * $number;
                $w = 3 * ($number - $begin);
                foreach ($torn[$number] as $v => [$first, $second, $third, $fourth]) {
                    [$a0, $a1, $c0] = match ($v) {
                        0 => [$a[$w], $a[$w + 1], $a[$w + 2]],
                        1 => [$b[$w], $b[$w + 1], $b[$w + 2]],
                        2 => [$c[$w], $c[$w + 1], $c[$w + 2]],
                        default => [$d[$w], $d[$w + 1], $d[$w + 2]],
                    };
                    $sum[$at] += (($a0 << 40) >> 40) * $first / 8388608.0;
                    $sum[$at + 1] += (($a0 << 16) >> 40) * $first / 8388608.0;
                    $sum[$at + 2] += ((($a1 << 56) >> 40) | (($a0 >> 48) & 0xFFFF)) * $second / 8388608.0;
                    $sum[$at + 3] += (($a1 << 32) >> 40) * $second / 8388608.0;
                    $sum[$at + 4] += (($a1 << 8) >> 40) * $third / 8388608.0;
                    $sum[$at + 5] += ((($c0 << 48) >> 40) | (($a1 >> 56) & 0xFF)) * $third / 8388608.0;
                    $sum[$at + 6] += (($c0 << 24) >> 40) * $fourth / 8388608.0;
                    $sum[$at + 7] += ($c0 >> 40) * $fourth / 8388608.0;
                }
            }
        }
        $this->samples = $sum;
    }

    /** @param array<int, int|float> $input */
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

    /** @param array<int, int|float> $input */
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

    /** @param array<int, int|float> $input */
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
