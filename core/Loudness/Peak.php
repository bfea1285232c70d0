<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Curve\Notch;

/** A moment at which a clip is louder than wanted, and the notch that tames it. */
final readonly class Peak
{
    /**
     * @param float $db level there after the clip's gains, dBFS
     * @param Notch $notch in source time
     */
    public function __construct(public float $db, public Notch $notch)
    {
    }
}
