<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Desk;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Zone;

/** Says between which levels the sound of a stem belongs; no sound changes by it. */
final readonly class SetZone implements Edit
{
    /** @param ?Zone $zone null for the usual one */
    public function __construct(private Stem $stem, private ?Zone $zone)
    {
    }

    public function label(Mix $before): string
    {
        return 'Set the zone of '.$this->stem->value;
    }

    public function apply(Mix $before): Mix
    {
        $aim = $before->aim->withZone($this->stem, $this->zone ?? Zone::usual($this->stem));

        return $aim == $before->aim ? $before : $before->withAim($aim);
    }
}
