<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Closure;
use Wattage\Core\Captions\Cue;
use Wattage\Core\Time\FrameRate;

/** The whole of a programme: its sources, tracks and clips. Immutable; edits make new ones. */
final readonly class Mix
{
    public const DEFAULT_RATE = 48_000;
    public const MAX_HOURS = 24;
    public const MAX_TRACKS = 200;
    public const MAX_CLIPS = 20_000;
    public const MAX_MARKERS = 10_000;
    /** Keyframes of clips and lanes, and points of pan and mute lanes, all together. */
    public const MAX_POINTS = 100_000;

    /**
     * @param int $rate samples per second of every position in the mix
     * @param array<string, Source> $sources by id
     * @param array<string, Track> $tracks by id, in their order on screen
     * @param array<string, Marker> $markers by id
     * @param array<string, Picture> $pictures those detached from their sound, by id
     * @param list<Cue> $captions in the order of time
     * @param array<string, DuckRule> $rules what gives way to what, by id
     */
    private function __construct(
        public int $rate,
        public FrameRate $frameRate,
        public array $sources,
        public array $tracks,
        public array $markers = [],
        public array $pictures = [],
        public Aim $aim = new Aim(),
        public array $captions = [],
        public Faders $faders = new Faders(),
        public array $rules = [],
    ) {
    }

    public static function empty(int $rate = self::DEFAULT_RATE, FrameRate $frameRate = FrameRate::F25): self
    {
        return self::of($rate, $frameRate, [], []);
    }

    /**
     * @param list<Source> $sources
     * @param list<Track> $tracks
     * @param list<Marker> $markers
     * @param list<Picture> $pictures
     * @param list<Cue> $captions
     * @param list<DuckRule> $rules
     *
     * @throws InvalidMix|UnknownItem when ids repeat, a clip names no source, or reaches past it
     */
    public static function of(int $rate, FrameRate $frameRate, array $sources, array $tracks, array $markers = [], array $pictures = [], Aim $aim = new Aim(), array $captions = [], Faders $faders = new Faders(), array $rules = []): self
    {
        48_000 === $rate || 96_000 === $rate || throw InvalidMix::unsupportedRate();
        $mix = new self($rate, $frameRate, [], [], aim: $aim, captions: $captions, faders: $faders);
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
        $named = [];
        foreach ($markers as $marker) {
            isset($named[$marker->id]) && throw InvalidMix::idTaken($marker->id, 'markers');
            $named[$marker->id] = $marker;
        }
        $mix = [] === $named ? $mix : $mix->withMarkers($named);
        foreach ($pictures as $picture) {
            isset($mix->pictures[$picture->id]) && throw InvalidMix::idTaken($picture->id, 'pictures');
            $mix = $mix->withPicture($picture);
        }
        foreach ($rules as $rule) {
            isset($mix->rules[$rule->id]) && throw InvalidMix::idTaken($rule->id, 'ducking');
            $mix = $mix->withRule($rule);
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

    /** @return array<string, true> ids of the sources that clips and pictures are cut from */
    public function usedSources(): array
    {
        $used = array_fill_keys(array_column($this->pictures, 'source'), true);
        foreach ($this->tracks as $track) {
            $used += array_fill_keys(array_column($track->clips, 'source'), true);
        }

        return $used;
    }

    /** @throws UnknownItem */
    public function track(string $id): Track
    {
        return $this->tracks[$id] ?? throw UnknownItem::track();
    }

    /** @throws UnknownItem */
    public function source(string $id): Source
    {
        return $this->sources[$id] ?? throw UnknownItem::source();
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
        throw UnknownItem::clip();
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

        return $this->copy(tracks: $tracks);
    }

    /** @throws UnknownItem */
    public function withoutTrack(string $id): self
    {
        $this->track($id);

        return $this->copy(tracks: array_diff_key($this->tracks, [$id => true]));
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

        return $this->copy(tracks: array_column($others, null, 'id'));
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

    /**
     * Replaces clips where they are, in time that grows with their number and not with its square.
     *
     * @param array<int, string> $ids
     * @param Closure(Clip): Clip $change
     *
     * @return self the very same mix where nothing changes
     *
     * @throws InvalidMix|UnknownItem
     */
    public function changingClips(array $ids, Closure $change): self
    {
        $changed = [];
        foreach (array_unique($ids) as $id) {
            $track = $this->trackOf($id);
            $clip = $change($track->clips[$id]);
            if ($clip != $track->clips[$id]) {
                $changed[$track->id][] = $clip;
            }
        }
        $after = $this;
        foreach ($changed as $track => $clips) {
            $after = $after->withTrack($after->track((string) $track)->withClip(...$clips));
        }

        return $after;
    }

    /** @throws InvalidMix when curves and lanes have more points together than can be worked with quickly */
    public function refuseTooManyPoints(): void
    {
        $points = array_sum(array_map(static fn (Track $track): int => $track->points(), $this->tracks));
        $points <= self::MAX_POINTS || throw InvalidMix::tooManyPoints(self::MAX_POINTS);
    }

    public function withSource(Source $source): self
    {
        return $this->copy(sources: [...$this->sources, $source->id => $source]);
    }

    public function withFrameRate(FrameRate $frameRate): self
    {
        return $this->copy(frameRate: $frameRate);
    }

    /** @throws InvalidMix */
    public function withMarker(Marker $marker): self
    {
        return $this->withMarkers([...$this->markers, $marker->id => $marker]);
    }

    /**
     * @param array<string, Marker> $markers by id, in place of those there are
     *
     * @throws InvalidMix
     */
    public function withMarkers(array $markers): self
    {
        \count($markers) <= self::MAX_MARKERS || throw InvalidMix::tooMany('markers', self::MAX_MARKERS);
        foreach ($markers as $marker) {
            $marker->at <= self::MAX_HOURS * 3600 * $this->rate || throw InvalidMix::tooLong('at');
        }
        uasort($markers, static fn (Marker $a, Marker $b): int => $a->at <=> $b->at);

        return $this->copy(markers: $markers);
    }

    /** @throws UnknownItem */
    public function marker(string $id): Marker
    {
        return $this->markers[$id] ?? throw UnknownItem::marker();
    }

    public function withoutMarker(string $id): self
    {
        $this->marker($id);

        return $this->copy(markers: array_diff_key($this->markers, [$id => true]));
    }

    /** @throws InvalidMix|UnknownItem */
    public function withPicture(Picture $picture): self
    {
        $source = $this->source($picture->source);
        $source->picture || throw InvalidMix::noPicture($source->name);
        $picture->in + $picture->length <= $source->length || throw InvalidMix::clipPastSource('picture', $source->name);
        $picture->at + $picture->length <= self::MAX_HOURS * 3600 * $this->rate || throw InvalidMix::tooLong('at');

        return $this->copy(pictures: [...$this->pictures, $picture->id => $picture]);
    }

    /** @throws UnknownItem */
    public function picture(string $id): Picture
    {
        return $this->pictures[$id] ?? throw UnknownItem::picture();
    }

    public function withoutPicture(string $id): self
    {
        $this->picture($id);

        return $this->copy(pictures: array_diff_key($this->pictures, [$id => true]));
    }

    public function withAim(Aim $aim): self
    {
        return $this->copy(aim: $aim);
    }

    /** @param list<Cue> $captions in the order of time */
    public function withCaptions(array $captions): self
    {
        return $this->copy(captions: $captions);
    }

    public function withFaders(Faders $faders): self
    {
        return $this->copy(faders: $faders);
    }

    /** @throws InvalidMix */
    public function withRule(DuckRule $rule): self
    {
        $rules = [...$this->rules, $rule->id => $rule];
        \count($rules) <= DuckRule::MAX_RULES || throw InvalidMix::tooMany('rules', DuckRule::MAX_RULES);

        return $this->copy(rules: $rules);
    }

    /** @throws UnknownItem */
    public function rule(string $id): DuckRule
    {
        return $this->rules[$id] ?? throw UnknownItem::rule();
    }

    public function withoutRule(string $id): self
    {
        $this->rule($id);

        return $this->copy(rules: array_diff_key($this->rules, [$id => true]));
    }

    private function checkClip(Clip $clip): void
    {
        $source = $this->source($clip->source);
        $clip->channels->isOpen() && 2 !== $source->channels && throw InvalidMix::oneChannel($clip->name);
        $clip->in + $clip->length <= $source->length || throw InvalidMix::clipPastSource($clip->name, $source->name);
        $clip->at + $clip->length <= self::MAX_HOURS * 3600 * $this->rate || throw InvalidMix::tooLong('at');
    }

    /**
     * @param ?array<string, Source> $sources
     * @param ?array<string, Track> $tracks
     * @param ?array<string, Marker> $markers
     * @param ?array<string, Picture> $pictures
     * @param ?list<Cue> $captions
     * @param ?array<string, DuckRule> $rules
     */
    private function copy(?FrameRate $frameRate = null, ?array $sources = null, ?array $tracks = null, ?array $markers = null, ?array $pictures = null, ?Aim $aim = null, ?array $captions = null, ?Faders $faders = null, ?array $rules = null): self
    {
        return new self($this->rate, $frameRate ?? $this->frameRate, $sources ?? $this->sources, $tracks ?? $this->tracks, $markers ?? $this->markers, $pictures ?? $this->pictures, $aim ?? $this->aim, $captions ?? $this->captions, $faders ?? $this->faders, $rules ?? $this->rules);
    }
}
