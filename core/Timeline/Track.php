<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Level\Decibels;

/** A row of clips that share a stem, a fader, a pan and a mute. */
final readonly class Track
{
    public string $id;
    public string $name;
    public Lanes $lanes;
    public Ducking $ducking;
    public Ducking $band;
    public Colour $colour;

    /**
     * @param float $pan −1 left … 1 right
     * @param array<string, Clip> $clips by id
     * @param bool $locked whether its clips are kept as they are
     * @param ?Hue $hue null for the ink of its stem
     * @param ?Ducking $band how far the band of speech gives way in it: see {@see \Wattage\Core\Filter\SpeechBand}
     * @param ?Colour $colour of all its clips together
     *
     * @throws InvalidMix
     */
    public function __construct(
        string $id,
        string $name,
        public Stem $stem,
        public Decibels $fader,
        public float $pan,
        public bool $muted,
        public array $clips,
        public bool $locked = false,
        public ?Hue $hue = null,
        ?Lanes $lanes = null,
        ?Ducking $ducking = null,
        ?Ducking $band = null,
        ?Colour $colour = null,
    ) {
        $this->lanes = $lanes ?? Lanes::none();
        $this->ducking = $ducking ?? Ducking::none();
        $this->band = $band ?? Ducking::none();
        $this->colour = $colour ?? Colour::none();
        $this->id = Name::checkId($id);
        $this->name = Name::check($name);
        $fader->atMost(Decibels::MAX_FADER);
        $pan >= -1.0 && $pan <= 1.0 || throw InvalidMix::panOutOfRange();
    }

    public static function named(string $id, string $name, Stem $stem): self
    {
        return new self($id, $name, $stem, Decibels::unchanged(), 0.0, false, []);
    }

    /** @return list<Clip> in the order of time */
    public function inOrder(): array
    {
        $clips = array_values($this->clips);
        usort($clips, static fn (Clip $a, Clip $b): int => $a->at <=> $b->at ?: $a->length <=> $b->length);

        return $clips;
    }

    /** @return array<string, Clip> for each clip that sounds wholly while another does, that other one */
    public function covered(): array
    {
        $covered = [];
        $longest = null;
        foreach ($this->inOrder() as $clip) {
            if (null !== $longest && $clip->end() <= $longest->end()) {
                $covered[$clip->id] = $longest;
            } elseif (null !== $longest && $clip->at === $longest->at) {
                $covered[$longest->id] = $clip;
                $longest = $clip;
            } else {
                $longest = $clip;
            }
        }

        return $covered;
    }

    public function withName(string $name): self
    {
        return $this->copy(name: $name);
    }

    public function withStem(Stem $stem): self
    {
        return $this->copy(stem: $stem);
    }

    public function withFader(Decibels $fader): self
    {
        return $this->copy(fader: $fader);
    }

    public function withPan(float $pan): self
    {
        return $this->copy(pan: $pan);
    }

    public function withMuted(bool $muted): self
    {
        return $this->copy(muted: $muted);
    }

    public function withLocked(bool $locked): self
    {
        return $this->copy(locked: $locked);
    }

    public function withHue(?Hue $hue): self
    {
        return new self($this->id, $this->name, $this->stem, $this->fader, $this->pan, $this->muted, $this->clips, $this->locked, $hue, $this->lanes, $this->ducking, $this->band, $this->colour);
    }

    public function withLanes(Lanes $lanes): self
    {
        return $this->copy(lanes: $lanes);
    }

    public function withDucking(Ducking $ducking): self
    {
        return $this->copy(ducking: $ducking);
    }

    public function withBand(Ducking $band): self
    {
        return $this->copy(band: $band);
    }

    /** How it gives way: all of it, or the band of speech in it. */
    public function givingWay(bool $band): Ducking
    {
        return $band ? $this->band : $this->ducking;
    }

    public function withGivingWay(bool $band, Ducking $ducking): self
    {
        return $band ? $this->withBand($ducking) : $this->withDucking($ducking);
    }

    public function withColour(Colour $colour): self
    {
        return $this->copy(colour: $colour);
    }

    /** Whether its sound goes through filters. */
    public function isFiltered(): bool
    {
        return !$this->band->curve->isFlat() || !$this->colour->isNone();
    }

    /** Its level lane; while that is empty, the fader is where it begins. */
    public function levels(): Curve
    {
        $lane = $this->lanes->level;

        return $lane->isFlat() && !$this->fader->equals(Decibels::unchanged()) ? Curve::of([new Keyframe(0, $this->fader, Ramp::line())]) : $lane;
    }

    /** Its pan lane; while that is empty, where it stands is where it begins. */
    public function pans(): PanLane
    {
        return $this->lanes->pan->isEmpty() ? new PanLane([[0, $this->pan]]) : $this->lanes->pan;
    }

    /** Whether its level is drawn in its lane, so that the fader does not count. */
    public function hasLevelLane(): bool
    {
        return !$this->lanes->off && !$this->lanes->level->isFlat();
    }

    public function hasPanLane(): bool
    {
        return !$this->lanes->off && !$this->lanes->pan->isEmpty();
    }

    /** Whether nothing of it can be heard at any time. */
    public function isSilent(): bool
    {
        return $this->muted || ($this->fader->isSilence() && !$this->hasLevelLane());
    }

    /** Keyframes of its clips and lanes, and points of its pan and mute lanes. */
    public function points(): int
    {
        $points = \count($this->lanes->level->keyframes) + \count($this->lanes->pan->points) + \count($this->lanes->mute->switches) + \count($this->ducking->curve->keyframes) + \count($this->band->curve->keyframes);
        foreach ($this->clips as $clip) {
            $points += \count($clip->curve->keyframes) + \count($clip->channels->left->curve->keyframes ?? []) + \count($clip->channels->right->curve->keyframes ?? []);
        }

        return $points;
    }

    public function withClip(Clip ...$clips): self
    {
        return $this->copy(clips: [...$this->clips, ...array_column($clips, null, 'id')]);
    }

    public function withoutClip(string ...$ids): self
    {
        return $this->copy(clips: array_diff_key($this->clips, array_fill_keys($ids, true)));
    }

    /** @param ?array<string, Clip> $clips */
    private function copy(
        ?string $name = null,
        ?Stem $stem = null,
        ?Decibels $fader = null,
        ?float $pan = null,
        ?bool $muted = null,
        ?array $clips = null,
        ?bool $locked = null,
        ?Lanes $lanes = null,
        ?Ducking $ducking = null,
        ?Ducking $band = null,
        ?Colour $colour = null,
    ): self {
        return new self(
            $this->id,
            $name ?? $this->name,
            $stem ?? $this->stem,
            $fader ?? $this->fader,
            $pan ?? $this->pan,
            $muted ?? $this->muted,
            $clips ?? $this->clips,
            $locked ?? $this->locked,
            $this->hue,
            $lanes ?? $this->lanes,
            $ducking ?? $this->ducking,
            $band ?? $this->band,
            $colour ?? $this->colour,
        );
    }
}
