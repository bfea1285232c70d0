<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** Where, and with what ears, a programme is to be understood. What each means is in Clarity\Hearing. */
enum Room: string
{
    case Quiet = 'quiet';
    case Phone = 'phone';
    case Kitchen = 'kitchen';
    case Car = 'car';
    case HardOfHearing = 'hearing';

    public function label(): string
    {
        return match ($this) {
            self::Quiet => 'a quiet room',
            self::Phone => 'a telephone’s loudspeaker',
            self::Kitchen => 'a kitchen',
            self::Car => 'a car',
            self::HardOfHearing => 'a mild hearing loss',
        };
    }
}
