<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

/** How far the targets of a rule have to give way at each moment, for speech to stand out as wanted. */
interface Need
{
    /** @return array<int, Given> by number of the 100 ms, of those from $from to $to in which somebody speaks */
    public function between(int $from, int $to): array;

    /** @return Given as far as each of those needs it */
    public function furthest(int $from, int $to): Given;
}
