<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/** What of a programme is handed over: all of it, a stem, all but a stem, or one track; the whole length, or a range. */
final readonly class Excerpt
{
    private function __construct(public ExcerptKind $kind, public ?Stem $stem, public ?string $track, public ?Span $range)
    {
    }

    public static function programme(?Span $range = null): self
    {
        return new self(ExcerptKind::Programme, null, null, $range);
    }

    public static function stem(Stem $stem, ?Span $range = null): self
    {
        return new self(ExcerptKind::Stem, $stem, null, $range);
    }

    public static function without(Stem $stem, ?Span $range = null): self
    {
        return new self(ExcerptKind::Without, $stem, null, $range);
    }

    public static function track(string $track, ?Span $range = null): self
    {
        return new self(ExcerptKind::Track, null, $track, $range);
    }

    /**
     * The mix with all else silent. Together the stems sound as the programme does: what gives way has its level already.
     *
     * @throws EmptyExcerpt when the track is not there, or none of these has a clip
     */
    public function of(Mix $mix): Mix
    {
        null === $this->track || isset($mix->tracks[$this->track]) || throw EmptyExcerpt::trackIsGone();
        foreach ($mix->tracks as $track) {
            if (!$this->has($track)) {
                $mix = $mix->withTrack($track->withMuted(true));
            }
        }

        return $mix;
    }

    /**
     * @throws EmptyExcerpt when there is nothing in it
     */
    public function span(Mix $mix): Span
    {
        $length = $mix->length();
        $length > 0 || throw EmptyExcerpt::nothingThere();
        $span = Span::of(0, $length);

        return null === $this->range ? $span : $this->range->within($span) ?? throw EmptyExcerpt::behindTheEnd();
    }

    private function has(Track $track): bool
    {
        return match ($this->kind) {
            ExcerptKind::Programme => true,
            ExcerptKind::Stem => $track->stem === $this->stem,
            ExcerptKind::Without => $track->stem !== $this->stem,
            ExcerptKind::Track => $track->id === $this->track,
        };
    }
}
