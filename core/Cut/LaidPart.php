<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\CutPart;

/** One clip of the cut as it was laid, and what has become of it: itself, parts of it, copies. */
final class LaidPart
{
    /** @var list<array{string, Clip}> id of the track on which it is now, and the clip; in the order of the source */
    private array $pieces = [];

    public function __construct(public readonly CutPart $part)
    {
    }

    public function add(string $track, Clip $piece): void
    {
        $this->pieces[] = [$track, $piece];
        usort($this->pieces, static fn (array $a, array $b): int => $a[1]->in <=> $b[1]->in ?: $a[1]->at <=> $b[1]->at);
    }

    /** @return list<array{string, Clip}> */
    public function pieces(): array
    {
        return $this->pieces;
    }
}
