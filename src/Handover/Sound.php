<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Iterator;

/** Sound that can be gone through again and again, in pieces of 100 ms. */
interface Sound
{
    public function frames(): int;

    /** @return Iterator<int, array<int, float>> interleaved, full scale ±1.0 */
    public function pieces(): Iterator;
}
