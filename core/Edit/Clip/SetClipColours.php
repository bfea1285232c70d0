<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Sets low cut and tone of clips, each its own, or takes them away. */
final readonly class SetClipColours implements Edit
{
    /** @param non-empty-array<string, Colour> $colours by clip */
    public function __construct(private array $colours)
    {
    }

    public function label(Mix $before): string
    {
        $none = [] === array_filter($this->colours, static fn (Colour $colour): bool => !$colour->isNone());

        return ($none ? 'Leave the colour as recorded: ' : 'Colour of ').Naming::clips($before, array_map(strval(...), array_keys($this->colours)));
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips(array_map(strval(...), array_keys($this->colours)), fn (Clip $clip): Clip => $clip->withColour($this->colours[$clip->id]));
    }
}
