<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Cut;

use Wattage\Core\Edit\WholeMix;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\UnknownItem;

/** Takes the whole of a mix from a file in place of the one there is: a cut of ours, say, that comes back. */
final readonly class TakeMix implements WholeMix
{
    /**
     * @param Mix $mix with the sources as the file knows them
     * @param array<string, Source> $sources those of the project that may be placed, by id
     */
    public function __construct(private string $name, private Mix $mix, private array $sources)
    {
    }

    public function label(Mix $before): string
    {
        return "Take the whole mix of {$this->name}";
    }

    public function apply(Mix $before): Mix
    {
        $sources = [];
        foreach (array_intersect_key($this->mix->sources, $this->mix->usedSources()) as $id => $source) {
            $here = $before->sources[$id] ?? $this->sources[$id] ?? throw UnknownItem::source();
            // Length, channels and picture are those of the file that is here.
            $sources[] = new Source($here->id, $source->name, $here->length, $here->channels, $source->gain, 2 === $here->channels ? $source->right : null, $here->picture);
        }
        $of = $this->mix;

        return Mix::of($of->rate, $of->frameRate, $sources, array_values($of->tracks), array_values($of->markers), array_values($of->pictures), $of->aim, $of->captions, $of->faders, array_values($of->rules));
    }
}
