<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\InvalidMix;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Track;

/** Places a part of a source on a track, which is made where there is none yet. */
final readonly class AddClip implements Edit
{
    /**
     * @param Source $source taken into the mix when it is not there yet
     * @param int $at timeline samples
     * @param int $in source samples
     * @param int $length samples; at most what the source has after $in
     * @param ?Track $fresh the track to make, where it is not there
     */
    public function __construct(private string $track, private string $clip, private Source $source, private int $at, private int $in, private int $length, private ?Track $fresh = null)
    {
    }

    public function label(Mix $before): string
    {
        return "Place {$this->source->name} on {$this->track($before)->name}";
    }

    public function apply(Mix $before): Mix
    {
        $before->hasClip($this->clip) && throw InvalidMix::idTaken($this->clip, 'clip');
        $clip = new Clip($this->clip, $this->source->id, $this->source->name, $this->at, $this->in, $this->length, Decibels::unchanged(), Curve::flat());
        $withSource = isset($before->sources[$this->source->id]) ? $before : $before->withSource($this->source);

        return $withSource->withTrack($this->track($before)->withClip($clip));
    }

    private function track(Mix $mix): Track
    {
        return isset($mix->tracks[$this->track]) || null === $this->fresh ? $mix->track($this->track) : $this->fresh;
    }
}
