<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Cut;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\InvalidMix;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Track;

/** Lays a cut that was made elsewhere on tracks of its own, in one step; \Wattage\Core\Cut\Laid works it out. */
final readonly class LayCut implements Edit
{
    /**
     * @param non-empty-list<Track> $tracks with their clips
     * @param array<string, Source> $sources that these use, by id
     * @param list<Marker> $markers
     */
    public function __construct(private string $name, private array $tracks, private array $sources, private array $markers)
    {
    }

    public function label(Mix $before): string
    {
        $clips = array_sum(array_map(static fn (Track $track): int => \count($track->clips), $this->tracks));

        return \sprintf('Lay the cut %s, %d %s', $this->name, $clips, 1 === $clips ? 'clip' : 'clips');
    }

    public function apply(Mix $before): Mix
    {
        $after = $before;
        foreach (array_diff_key($this->sources, $before->sources) as $source) {
            $after = $after->withSource($source);
        }
        foreach ($this->tracks as $track) {
            isset($after->tracks[$track->id]) && throw InvalidMix::idTaken($track->id, 'tracks');
            foreach (array_keys($track->clips) as $clip) {
                $before->hasClip((string) $clip) && throw InvalidMix::idTaken((string) $clip, 'clips');
            }
            $after = $after->withTrack($track);
        }
        $markers = $after->markers;
        foreach ($this->markers as $marker) {
            isset($markers[$marker->id]) && throw InvalidMix::idTaken($marker->id, 'markers');
            $markers[$marker->id] = $marker;
        }

        return [] === $this->markers ? $after : $after->withMarkers($markers);
    }
}
