<?php

declare(strict_types=1);

namespace Wattage\Core\Fade;

/** How the gain of a fade rises over its way x, 0…1, from 0 to 1. A fade out is the same shape read backwards. */
enum FadeShape: string
{
    /** Straight in gain; two of them crossing keep the sum of gains at 1. */
    case Linear = 'linear';
    /** Sine and cosine; two of them crossing keep the sum of powers at 1 (definition: sin² + cos² = 1). */
    case EqualPower = 'equal-power';
    /** Half a cosine: flat at both ends; two of them crossing keep the sum of gains at 1. */
    case S = 's';
    /** Straight in dB from −60 dB, moved so that it begins at nothing. */
    case Exponential = 'exponential';

    /** ln(1000), the height of the exponential in nepers: 60 dB. */
    private const NEPERS = 6.907755278982137;

    /** @param float $x way along the fade, 0…1. @return float gain, 0…1 */
    public function gainAt(float $x): float
    {
        return match ($this) {
            self::Linear => $x,
            self::EqualPower => sin($x * \M_PI_2),
            self::S => 0.5 - 0.5 * cos($x * \M_PI),
            self::Exponential => (exp(self::NEPERS * ($x - 1.0)) - 0.001) / 0.999,
        };
    }

    /** Largest first derivative over the way. */
    public function steepest(): float
    {
        return match ($this) {
            self::Linear => 1.0,
            self::EqualPower, self::S => \M_PI_2,
            self::Exponential => self::NEPERS / 0.999,
        };
    }

    /** Largest second derivative over the way, as a size. */
    public function sharpest(): float
    {
        return match ($this) {
            self::Linear => 0.0,
            self::EqualPower => \M_PI_2 ** 2,
            self::S => \M_PI ** 2 / 2.0,
            self::Exponential => self::NEPERS ** 2 / 0.999,
        };
    }

    /** For labels: "equal power". */
    public function label(): string
    {
        return match ($this) {
            self::S => 'S',
            default => strtr($this->value, '-', ' '),
        };
    }
}
