<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Desk;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;

/** Sets the fader of a stem, or of the programme. */
final readonly class SetBusFader implements Edit
{
    /** @param ?Stem $stem null for the programme */
    public function __construct(private ?Stem $stem, private Decibels $fader)
    {
    }

    public function label(Mix $before): string
    {
        return \sprintf('Set %s to %s', null === $this->stem ? 'the programme' : "stem {$this->stem->value}", $this->fader->format());
    }

    public function apply(Mix $before): Mix
    {
        $faders = null === $this->stem ? $before->faders->withProgramme($this->fader) : $before->faders->with($this->stem, $this->fader);

        return $faders == $before->faders ? $before : $before->withFaders($faders);
    }
}
