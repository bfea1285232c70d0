<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Level\Decibels;

/** A row of clips that share a stem, a fader, a pan and a mute. */
final readonly class Track
{
    public string $id;
    public string $name;

    /**
     * @param float $pan −1 left … 1 right
     * @param array<string, Clip> $clips by id
     *
     * @throws InvalidMix
     */
    public function __construct(string $id, string $name, public Stem $stem, public Decibels $fader, public float $pan, public bool $muted, public array $clips)
    {
        $this->id = Name::checkId($id);
        $this->name = Name::check($name);
        $fader->atMost(Decibels::MAX_FADER);
        $pan >= -1.0 && $pan <= 1.0 || throw InvalidMix::panOutOfRange();
    }

    public static function named(string $id, string $name, Stem $stem): self
    {
        return new self($id, $name, $stem, Decibels::unchanged(), 0.0, false, []);
    }

    public function withName(string $name): self
    {
        return new self($this->id, $name, $this->stem, $this->fader, $this->pan, $this->muted, $this->clips);
    }

    public function withStem(Stem $stem): self
    {
        return new self($this->id, $this->name, $stem, $this->fader, $this->pan, $this->muted, $this->clips);
    }

    public function withFader(Decibels $fader): self
    {
        return new self($this->id, $this->name, $this->stem, $fader, $this->pan, $this->muted, $this->clips);
    }

    public function withPan(float $pan): self
    {
        return new self($this->id, $this->name, $this->stem, $this->fader, $pan, $this->muted, $this->clips);
    }

    public function withMuted(bool $muted): self
    {
        return new self($this->id, $this->name, $this->stem, $this->fader, $this->pan, $muted, $this->clips);
    }

    public function withClip(Clip $clip): self
    {
        return new self($this->id, $this->name, $this->stem, $this->fader, $this->pan, $this->muted, [...$this->clips, $clip->id => $clip]);
    }

    public function withoutClip(string $id): self
    {
        return new self($this->id, $this->name, $this->stem, $this->fader, $this->pan, $this->muted, array_diff_key($this->clips, [$id => true]));
    }
}
