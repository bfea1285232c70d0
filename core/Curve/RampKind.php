<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

/** How the level gets from one keyframe to the next. */
enum RampKind: string
{
    /** Straight in dB, so exponential in gain. */
    case Line = 'line';
    /** An S in dB with flat ends. */
    case Smooth = 'smooth';
    /** Stays, then steps at the next keyframe. */
    case Hold = 'hold';
    /** Straight in gain; what every line or smooth ramp from or to silence becomes, so that it neither clicks nor lingers. */
    case Gain = 'gain';
}
