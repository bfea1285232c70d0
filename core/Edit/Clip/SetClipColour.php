<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Sets low cut and tone of clips, or takes them away. */
final readonly class SetClipColour implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips, private Colour $colour)
    {
    }

    public function label(Mix $before): string
    {
        return ($this->colour->isNone() ? 'Leave the colour as recorded: ' : 'Colour of ').Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips($this->clips, fn (Clip $clip): Clip => $clip->withColour($this->colour));
    }
}
