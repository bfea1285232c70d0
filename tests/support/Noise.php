<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use InvalidArgumentException;

/** Sound that is no speech, made by the test: noise of several kinds, and what happens in a room or a street. At 48 kHz. */
final class Noise
{
    public const KINDS = ['white', 'pink', 'brown', 'hum', 'rain', 'wind', 'traffic', 'fan'];
    public const EVENTS = ['slam', 'click', 'horn', 'beep', 'knocks', 'keys', 'creak', 'chirp', 'bell'];

    private const RATE = 48_000;
    private const TURN = 2 * \M_PI / self::RATE;

    public function __construct(private readonly Random $random)
    {
    }

    /**
     * @param float $rms full scale is 1
     *
     * @return list<float>
     */
    public function steady(string $kind, int $frames, float $rms): array
    {
        $noise = match ($kind) {
            'white' => $this->filtered($frames, 0.0, 0.0),
            'pink' => $this->pink($frames),
            'brown' => $this->filtered($frames, 0.998, 0.0),
            'hum' => $this->hum($frames),
            'rain' => $this->rain($frames),
            'wind' => $this->wind($frames),
            'traffic' => $this->traffic($frames),
            'fan' => $this->filtered($frames, $this->random->float(0.5, 0.99), 0.98),
            default => throw new InvalidArgumentException($kind),
        };

        return self::scaled($noise, $rms);
    }

    /**
     * @param float $peak full scale is 1
     *
     * @return list<float>
     */
    public function event(string $kind, float $peak): array
    {
        $sound = match ($kind) {
            'slam' => $this->slam(),
            'click' => $this->burst((int) (self::RATE * $this->random->float(0.002, 0.02)), 5.0),
            'horn' => $this->horn(),
            'beep' => $this->tones([$this->random->float(300, 3300)], $this->random->float(0.1, 1.1), 0.004),
            'knocks' => $this->knocks(),
            'keys' => $this->keys(),
            'creak' => $this->creak(),
            'chirp' => $this->chirp(),
            'bell' => $this->bell(),
            default => throw new InvalidArgumentException($kind),
        };
        $most = max(1e-9, max($sound), -min($sound));

        return array_map(static fn (float $x): float => $peak * $x / $most, $sound);
    }

    /**
     * Chords and a tune of plucked strings: music without a singer.
     *
     * @return list<float>
     */
    public function music(int $frames, float $rms): array
    {
        $music = array_fill(0, $frames, 0.0);
        $beat = (int) (self::RATE * $this->random->float(0.35, 0.8));
        $roots = [48, 53, 55, 45];
        for ($at = 0, $n = 0; $at < $frames; $at += $beat, ++$n) {
            $root = $roots[intdiv($n, 4) % 4];
            $notes = 0 === $n % 4 ? [$root - 12, $root, $root + 4, $root + 7] : [$root + [0, 4, 7, 12, 14, 16][$this->random->int(0, 5)]];
            foreach ($notes as $note) {
                $hz = 440.0 * 2.0 ** (($note - 57) / 12);
                $long = min($frames - $at, 4 * $beat);
                for ($i = 0; $i < $long; ++$i) {
                    $phase = $hz * $i * self::TURN;
                    $music[$at + $i] += exp(-$i / (1.2 * $beat)) * (sin($phase) + 0.5 * sin(2 * $phase) + 0.25 * sin(3 * $phase) + 0.12 * sin(5 * $phase));
                }
            }
        }

        return self::scaled($music, $rms);
    }

    /**
     * @param array<int, float> $sound
     *
     * @return list<float>
     */
    public static function scaled(array $sound, float $rms): array
    {
        $mean = array_sum(array_map(static fn (float $x): float => $x * $x, $sound)) / max(1, \count($sound));
        $gain = $rms / sqrt(max(1e-18, $mean));

        return array_values(array_map(static fn (float $x): float => $gain * $x, $sound));
    }

    /** @return list<float> white noise through a low pass, less what a second one leaves of that */
    private function filtered(int $frames, float $low, float $slow): array
    {
        $noise = [];
        $y = $z = 0.0;
        for ($i = 0; $i < $frames; ++$i) {
            $y = $low * $y + $this->random->float(-1.0, 1.0);
            $z = $slow > 0.0 ? $slow * $z + (1.0 - $slow) * $y : 0.0;
            $noise[] = $y - $z;
        }

        return $noise;
    }

    /** @return list<float> three poles and a rest, which is pink within half a decibel */
    private function pink(int $frames): array
    {
        $noise = [];
        $a = $b = $c = 0.0;
        for ($i = 0; $i < $frames; ++$i) {
            $white = $this->random->float(-1.0, 1.0);
            $a = 0.99765 * $a + 0.0990460 * $white;
            $b = 0.963 * $b + 0.2965164 * $white;
            $c = 0.57 * $c + 1.0526913 * $white;
            $noise[] = $a + $b + $c + 0.1848 * $white;
        }

        return $noise;
    }

    /** @return list<float> an engine: harmonics that waver, and some hiss */
    private function hum(int $frames): array
    {
        $hz = $this->random->float(40, 120);
        $parts = array_map(fn (int $h): float => $this->random->float(0, 1) / $h, range(1, 20));
        [$sway, $waver] = [$this->random->float(0, 6), $this->random->float(0.3, 2.3)];
        $noise = [];
        $phase = $y = 0.0;
        for ($i = 0; $i < $frames; ++$i) {
            $phase += $hz * (1.0 + 0.01 * sin($waver * $i / self::RATE)) * self::TURN;
            $sum = 0.0;
            foreach ($parts as $h => $part) {
                $sum += $part * sin(($h + 1) * $phase);
            }
            $y = 0.95 * $y + 0.3 * $this->random->float(-1.0, 1.0);
            $noise[] = $sum * (1.0 + 0.2 * sin($sway * $i / self::RATE)) + 0.8 * $y;
        }

        return $noise;
    }

    /** @return list<float> */
    private function rain(int $frames): array
    {
        $noise = [];
        $before = 0.0;
        for ($i = 0; $i < $frames; ++$i) {
            $white = $this->random->float(-1.0, 1.0);
            $noise[] = $white - 0.7 * $before;
            $before = $white;
        }
        for ($drop = 0, $drops = (int) ($frames / self::RATE * $this->random->float(5, 45)); $drop < $drops; ++$drop) {
            [$at, $loud, $hz] = [$this->random->int(0, max(0, $frames - 800)), $this->random->float(2, 8), $this->random->float(800, 4800)];
            for ($i = 0; $i < 800 && $at + $i < $frames; ++$i) {
                $noise[$at + $i] += $loud * exp(-$i / 120) * sin($hz * $i * self::TURN);
            }
        }

        return array_values($noise);
    }

    /** @return list<float> */
    private function wind(int $frames): array
    {
        $noise = [];
        $y = $z = $drift = 0.0;
        $gain = 1.0;
        for ($i = 0; $i < $frames; ++$i) {
            if (0 === $i % 2400) {
                $drift = 0.9 * $drift + $this->random->float(-0.5, 0.5);
                $gain = exp($drift);
            }
            $white = 0.1 * $this->random->float(-1.0, 1.0);
            $y = 0.99 * $y + $white;
            $z = 0.9 * $z + $white * $gain;
            $noise[] = ($y + $z) * $gain;
        }

        return $noise;
    }

    /** @return list<float> */
    private function traffic(int $frames): array
    {
        $noise = [];
        $y = 0.0;
        for ($i = 0; $i < $frames; ++$i) {
            $y = 0.97 * $y + 0.1 * $this->random->float(-1.0, 1.0);
            $noise[] = $y * (1.6 + sin(0.7 * $i / self::RATE) + 0.4 * sin(1.9 * $i / self::RATE + 1.0));
        }

        return $noise;
    }

    /** @return list<float> */
    private function slam(): array
    {
        $n = (int) (self::RATE * $this->random->float(0.08, 0.58));
        [$dull, $one, $two] = [$this->random->float(0.6, 0.99), $this->random->float(80, 380), $this->random->float(300, 1000)];
        $y = 0.0;
        $sound = [];
        for ($i = 0; $i < $n; ++$i) {
            $y = $dull * $y + (1.0 - $dull) * $this->random->float(-1.0, 1.0);
            $sound[] = exp(-5 * $i / $n) * (3.0 * $y + 0.4 * sin($one * $i * self::TURN) + 0.2 * sin($two * $i * self::TURN));
        }

        return $sound;
    }

    /** @return list<float> */
    private function burst(int $frames, float $falls): array
    {
        $sound = [];
        for ($i = 0; $i < $frames; ++$i) {
            $sound[] = $this->random->float(-1.0, 1.0) * exp(-$falls * $i / $frames);
        }

        return $sound;
    }

    /** @return list<float> */
    private function horn(): array
    {
        $hz = $this->random->float(90, 490);
        $second = $this->random->int(0, 1) ? 1.26 * $hz : $hz;
        $parts = [];
        for ($h = 1; $h <= 10; ++$h) {
            array_push($parts, $h * $hz, $h * $second);
        }

        return $this->tones($parts, $this->random->float(0.4, 2.9), 0.05, falling: true);
    }

    /**
     * @param non-empty-list<float> $hertz
     * @param float $edge seconds that it takes to begin and to end
     *
     * @return list<float>
     */
    private function tones(array $hertz, float $seconds, float $edge, bool $falling = false): array
    {
        $n = (int) ($seconds * self::RATE);
        $sound = [];
        for ($i = 0; $i < $n; ++$i) {
            $sum = 0.0;
            foreach ($hertz as $k => $hz) {
                $sum += sin($hz * $i * self::TURN) / ($falling ? intdiv($k, 2) + 1 : 1);
            }
            $sound[] = $sum * min(1.0, $i / ($edge * self::RATE), ($n - $i) / ($edge * self::RATE));
        }

        return $sound;
    }

    /** @return list<float> */
    private function knocks(): array
    {
        $step = (int) (self::RATE * $this->random->float(0.12, 0.37));
        $sound = [];
        for ($k = 0, $n = $this->random->int(2, 6); $k < $n; ++$k) {
            $hz = $this->random->float(120, 520);
            for ($i = 0; $i < $step; ++$i) {
                $sound[] = exp(-$i / 500) * (sin($hz * $i * self::TURN) + 0.5 * $this->random->float(-1.0, 1.0));
            }
        }

        return $sound;
    }

    /** @return list<float> */
    private function keys(): array
    {
        $sound = [];
        for ($k = 0, $n = $this->random->int(5, 30); $k < $n; ++$k) {
            [$gap, $loud] = [(int) (self::RATE * $this->random->float(0.06, 0.26)), $this->random->float(0.3, 1.3)];
            for ($i = 0; $i < $gap; ++$i) {
                $sound[] = $i < 900 ? $loud * $this->random->float(-1.0, 1.0) * exp(-$i / 150) : 0.0;
            }
        }

        return $sound;
    }

    /** @return list<float> */
    private function creak(): array
    {
        $n = (int) (self::RATE * $this->random->float(0.3, 1.5));
        [$hz, $bend] = [$this->random->float(150, 650), $this->random->float(-1, 1)];
        $phase = 0.0;
        $sound = [];
        for ($i = 0; $i < $n; ++$i) {
            $phase = fmod($phase + $hz * (1.0 + $bend * $i / $n) * self::TURN, 2 * \M_PI);
            $sound[] = ($phase < 1.0 ? 1.0 : -0.2) * min(1.0, $i / 3000, ($n - $i) / 3000) * $this->random->float(0.6, 1.0);
        }

        return $sound;
    }

    /** @return list<float> */
    private function chirp(): array
    {
        $sound = [];
        for ($k = 0, $times = $this->random->int(1, 5); $k < $times; ++$k) {
            [$n, $hz] = [(int) (self::RATE * $this->random->float(0.1, 0.4)), $this->random->float(1200, 3700)];
            $phase = 0.0;
            for ($i = 0; $i < $n; ++$i) {
                $phase += $hz * (1.0 + 0.3 * sin(\M_PI * $i / $n)) * self::TURN;
                $sound[] = sin($phase) * sin(\M_PI * $i / $n);
            }
            array_push($sound, ...array_fill(0, 4800, 0.0));
        }

        return $sound;
    }

    /** @return list<float> */
    private function bell(): array
    {
        $n = (int) (self::RATE * $this->random->float(1, 3));
        $hz = $this->random->float(300, 1200);
        $sound = [];
        for ($i = 0; $i < $n; ++$i) {
            $sound[] = exp(-$i / (0.6 * self::RATE)) * (sin($hz * $i * self::TURN) + 0.6 * sin(2.76 * $hz * $i * self::TURN) + 0.4 * sin(5.4 * $hz * $i * self::TURN));
        }

        return $sound;
    }
}
