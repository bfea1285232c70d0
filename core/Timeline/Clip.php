<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/**
 * A part of a source, placed on the timeline. Its curve lives in source time, so that moving and trimming never shift a
 * keyframe against the sound.
 */
final readonly class Clip
{
    public string $id;
    public string $name;
    public Fade $fadeIn;
    public Fade $fadeOut;
    public Channels $channels;
    public Colour $colour;

    /**
     * @param int $at where it starts on the timeline, samples ≥ 0
     * @param int $in where it starts in its source, samples ≥ 0
     * @param int $length samples > 0
     * @param bool $detached whether its source's picture, if there is one, stays away from it
     * @param bool $triggers whether its speech ducks other tracks, where a rule hears it
     * @param bool $ducked whether it gives way where its track does
     * @param bool $muted whether it is silent, with all its levels kept
     * @param ?CutPart $cutPart what it was in the cut that it was laid from; null where it was placed here
     *
     * @throws InvalidMix
     */
    public function __construct(
        string $id,
        public string $source,
        string $name,
        public int $at,
        public int $in,
        public int $length,
        public Decibels $gain,
        public Curve $curve,
        ?Fade $fadeIn = null,
        ?Fade $fadeOut = null,
        ?Channels $channels = null,
        public bool $detached = false,
        public bool $triggers = true,
        public bool $ducked = true,
        public bool $muted = false,
        public ?CutPart $cutPart = null,
        ?Colour $colour = null,
    ) {
        $this->id = Name::checkId($id);
        $this->name = Name::check($name);
        $at >= 0 || throw InvalidMix::negativeTime('at');
        $in >= 0 || throw InvalidMix::negativeTime('in');
        $length > 0 || throw InvalidMix::emptyClip();
        $gain->atMost(Decibels::MAX_CLIP);
        // A clip that was made shorter takes its fades with it as far as there is room.
        $this->fadeIn = ($fadeIn ?? Fade::none())->noLongerThan($length);
        $this->fadeOut = ($fadeOut ?? Fade::none())->noLongerThan($length - $this->fadeIn->length);
        $this->channels = $channels ?? Channels::usual();
        $this->colour = $colour ?? Colour::none();
    }

    /** Where it sounds on the timeline. */
    public function span(): Span
    {
        return Span::of($this->at, $this->at + $this->length);
    }

    public function end(): int
    {
        return $this->at + $this->length;
    }

    /** The part of its source that sounds. */
    public function heard(): Span
    {
        return Span::of($this->in, $this->in + $this->length);
    }

    /** Timeline to source time. */
    public function toSource(int $position): int
    {
        return $position - $this->at + $this->in;
    }

    /** Source to timeline time. */
    public function toTimeline(int $position): int
    {
        return $position - $this->in + $this->at;
    }

    /** Level of the clip at a timeline position, source gain and fades not included. */
    public function levelAt(int $position): Decibels
    {
        return $this->gain->plus($this->curve->levelAt($this->toSource($position)));
    }

    public function movedTo(int $at): self
    {
        return $this->copy(at: $at);
    }

    /** The sound stays where it is on the timeline; only the ends change. */
    public function trimmedTo(Span $span): self
    {
        return $this->copy(at: $span->from, in: $this->in + $span->from - $this->at, length: $span->length());
    }

    /** The ends stay where they are; another part of the source sounds between them. */
    public function slippedTo(int $in): self
    {
        return $this->copy(in: $in);
    }

    public function called(string $id): self
    {
        return $this->copy(id: $id);
    }

    public function withName(string $name): self
    {
        return $this->copy(name: $name);
    }

    public function withGain(Decibels $gain): self
    {
        return $this->copy(gain: $gain);
    }

    public function withCurve(Curve $curve): self
    {
        return $curve === $this->curve ? $this : $this->copy(curve: $curve);
    }

    public function withFades(Fade $in, Fade $out): self
    {
        return $this->copy(fadeIn: $in, fadeOut: $out);
    }

    public function withChannels(Channels $channels): self
    {
        return $this->copy(channels: $channels);
    }

    public function withDetached(bool $detached): self
    {
        return $this->copy(detached: $detached);
    }

    public function withPartInDucking(?bool $triggers, ?bool $ducked): self
    {
        return $this->copy(triggers: $triggers, ducked: $ducked);
    }

    public function withColour(Colour $colour): self
    {
        return $this->copy(colour: $colour);
    }

    public function withMuted(bool $muted): self
    {
        return $this->copy(muted: $muted);
    }

    public function withCutPart(?CutPart $part): self
    {
        return new self($this->id, $this->source, $this->name, $this->at, $this->in, $this->length, $this->gain, $this->curve, $this->fadeIn, $this->fadeOut, $this->channels, $this->detached, $this->triggers, $this->ducked, $this->muted, $part, $this->colour);
    }

    /** Another recording in its place: as much of it as there is, its levels against the same moments of the clip. */
    public function playing(Source $source): self
    {
        $in = $this->in + $this->length <= $source->length ? $this->in : max(0, min($this->in, $source->length - $this->length));
        $length = min($this->length, $source->length - $in);
        $channels = $this->channels->isOpen() && 2 !== $source->channels ? Channels::usual() : $this->channels;
        $by = $in - $this->in;
        $shifted = static fn (Curve $curve): Curve => $curve->shiftedWithin($by);
        $channels = $channels->isOpen() ? Channels::opened($channels->mode, $channels->of(Side::Left)->withCurve($shifted($channels->of(Side::Left)->curve)), $channels->of(Side::Right)->withCurve($shifted($channels->of(Side::Right)->curve))) : $channels;

        return $this->copy(name: $source->name, in: $in, length: $length, curve: $shifted($this->curve), channels: $channels, source: $source->id);
    }

    private function copy(
        ?string $id = null,
        ?string $name = null,
        ?int $at = null,
        ?int $in = null,
        ?int $length = null,
        ?Decibels $gain = null,
        ?Curve $curve = null,
        ?Fade $fadeIn = null,
        ?Fade $fadeOut = null,
        ?Channels $channels = null,
        ?bool $detached = null,
        ?bool $triggers = null,
        ?bool $ducked = null,
        ?bool $muted = null,
        ?string $source = null,
        ?Colour $colour = null,
    ): self {
        return new self(
            $id ?? $this->id,
            $source ?? $this->source,
            $name ?? $this->name,
            $at ?? $this->at,
            $in ?? $this->in,
            $length ?? $this->length,
            $gain ?? $this->gain,
            $curve ?? $this->curve,
            $fadeIn ?? $this->fadeIn,
            $fadeOut ?? $this->fadeOut,
            $channels ?? $this->channels,
            $detached ?? $this->detached,
            $triggers ?? $this->triggers,
            $ducked ?? $this->ducked,
            $muted ?? $this->muted,
            $this->cutPart,
            $colour ?? $this->colour,
        );
    }
}
