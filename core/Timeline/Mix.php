<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Time\FrameRate;

/** The whole of a programme: its sources, tracks and clips. Immutable; edits make new ones. */
final readonly class Mix
{
    public const DEFAULT_RATE = 48_000;
    public const MAX_HOURS = 24;
    public const MAX_TRACKS = 200;
    public const MAX_CLIPS = 20_000;

    /**
     * @param int $rate samples per second of every position in the mix
     * @param array<string, Source> $sources by id
     * @param array<string, Track> $tracks by id, in their order on screen
     */
    private function __construct(public int $rate, public FrameRate $frameRate, public array $sources, public array $tracks)
    {
    }

    public static function empty(int $rate = self::DEFAULT_RATE, FrameRate $frameRate = FrameRate::F25): self
    {
        return self::of($rate, $frameRate, [], []);
    }

    /**
     * @param list<Source> $sources
     * @param list<Track> $tracks
     *
     * @throws InvalidMix|UnknownItem when ids repeat, a clip names no source, or reaches past it
     */
    public static function of(int $rate, FrameRate $frameRate, array $sources, array $tracks): self
    {
        48_000 === $rate || 96_000 === $rate || throw InvalidMix::unsupportedRate();
        $mix = new self($rate, $frameRate, [], []);
        foreach ($sources as $source) {
            isset($mix->sources[$source->id]) && throw InvalidMix::idTaken($source->id, 'sources');
            $mix = $mix->withSource($source);
        }
        $clips = [];
        foreach ($tracks as $track) {
            isset($mix->tracks[$track->id]) && throw InvalidMix::idTaken($track->id, 'tracks');
            foreach ($track->clips as $clip) {
                isset($clips[$clip->id]) && throw InvalidMix::idTaken($clip->id, 'clips');
                $clips[$clip->id] = true;
            }
            $mix = $mix->withTrack($track);
        }

        return $mix;
    }

    /** Samples from the start of the timeline to the end of the last clip. */
    public function length(): int
    {
        $end = 0;
        foreach ($this->tracks as $track) {
            foreach ($track->clips as $clip) {
                $end = max($end, $clip->at + $clip->length);
            }
        }

        return $end;
    }

    /** @throws UnknownItem */
    public function track(string $id): Track
    {
        return $this->tracks[$id] ?? throw UnknownItem::track($id);
    }

    /** @throws UnknownItem */
    public function source(string $id): Source
    {
        return $this->sources[$id] ?? throw UnknownItem::source($id);
    }

    /** @throws UnknownItem */
    public function clip(string $id): Clip
    {
        return $this->trackOf($id)->clips[$id];
    }

    /**
     * The track that holds a clip.
     *
     * @throws UnknownItem
     */
    public function trackOf(string $clip): Track
    {
        foreach ($this->tracks as $track) {
            if (isset($track->clips[$clip])) {
                return $track;
            }
        }
        throw UnknownItem::clip($clip);
    }

    public function hasClip(string $id): bool
    {
        foreach ($this->tracks as $track) {
            if (isset($track->clips[$id])) {
                return true;
            }
        }

        return false;
    }

    /**
     * Adds a track at the end, or replaces the one with its id.
     *
     * @throws InvalidMix|UnknownItem
     */
    public function withTrack(Track $track): self
    {
        $known = $this->tracks[$track->id]->clips ?? [];
        foreach ($track->clips as $id => $clip) {
            ($known[$id] ?? null) === $clip || $this->checkClip($clip);
        }
        $tracks = [...$this->tracks, $track->id => $track];
        \count($tracks) <= self::MAX_TRACKS || throw InvalidMix::tooMany('tracks', self::MAX_TRACKS);
        array_sum(array_map(static fn (Track $t): int => \count($t->clips), $tracks)) <= self::MAX_CLIPS || throw InvalidMix::tooMany('clips', self::MAX_CLIPS);

        return new self($this->rate, $this->frameRate, $this->sources, $tracks);
    }

    /** @throws UnknownItem */
    public function withoutTrack(string $id): self
    {
        $this->track($id);

        return new self($this->rate, $this->frameRate, $this->sources, array_diff_key($this->tracks, [$id => true]));
    }

    /**
     * Puts a track in another place of the order.
     *
     * @throws UnknownItem
     */
    public function withTrackAt(string $id, int $place): self
    {
        $track = $this->track($id);
        $others = array_values(array_diff_key($this->tracks, [$id => true]));
        array_splice($others, max(0, min($place, \count($others))), 0, [$track]);

        return new self($this->rate, $this->frameRate, $this->sources, array_column($others, null, 'id'));
    }

    /**
     * Replaces a clip where it is.
     *
     * @throws InvalidMix|UnknownItem
     */
    public function withClip(Clip $clip): self
    {
        return $this->withTrack($this->trackOf($clip->id)->withClip($clip));
    }

    public function withSource(Source $source): self
    {
        return new self($this->rate, $this->frameRate, [...$this->sources, $source->id => $source], $this->tracks);
    }

    public function withFrameRate(FrameRate $frameRate): self
    {
        return new self($this->rate, $frameRate, $this->sources, $this->tracks);
    }

    private function checkClip(Clip $clip): void
    {
        $source = $this->source($clip->source);
        $clip->in + $clip->length <= $source->length || throw InvalidMix::clipPastSource($clip->name, $source->name);
        $clip->at + $clip->length <= self::MAX_HOURS * 3600 * $this->rate || throw InvalidMix::tooLong('at');
    }
}
