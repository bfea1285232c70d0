<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;

/** A change of the mix: a pure function with a label for people. The only way a mix changes. */
interface Edit
{
    /** What it does, in words: "Dip Slow accordion by 11 dB, 0:58.000–1:09.000". */
    public function label(Mix $before): string;

    /**
     * @return Mix the very same mix when nothing changes, so that no empty step is recorded
     *
     * @throws Problem when it makes no sense for this mix
     */
    public function apply(Mix $before): Mix;
}
