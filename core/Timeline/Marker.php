<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** A named moment of the timeline. */
final readonly class Marker
{
    public string $id;
    public string $name;

    /** @param int $at timeline samples ≥ 0 */
    public function __construct(string $id, public int $at, string $name)
    {
        $this->id = Name::checkId($id);
        $this->name = Name::check($name);
        $at >= 0 || throw InvalidMix::negativeTime('at');
    }
}
