<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Cut;

use Wattage\Core\Cut\ChangedCut;
use Wattage\Core\Cut\Relaid;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Track;

/** Puts the new version of a cut in place of the one that was laid, and keeps the balance; {@see ChangedCut} says how. */
final readonly class ChangeCut implements Edit
{
    /**
     * @param non-empty-list<Track> $tracks with their clips
     * @param array<string, Source> $sources that these use, by id
     * @param list<Marker> $markers
     * @param ?string $instead id of the cut that was laid; null for what stands on tracks of the same names
     */
    public function __construct(private string $name, private array $tracks, private array $sources, private array $markers, private ?string $instead)
    {
    }

    public function label(Mix $before): string
    {
        return "Bring in the changed cut {$this->name}";
    }

    public function apply(Mix $before): Mix
    {
        return $this->relaid($before)->mix;
    }

    /** What it would make of a mix, with the list of what is new and gone. */
    public function relaid(Mix $before): Relaid
    {
        return ChangedCut::lay($this->tracks, $this->sources, $this->markers, $this->instead, $before);
    }
}
