<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

final readonly class CutTrack
{
    /** @param list<CutClip> $clips in the order of time */
    public function __construct(public string $name, public array $clips)
    {
    }
}
