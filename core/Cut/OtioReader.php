<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use Wattage\Core\Timeline\Mix;

/**
 * Reads a cut from OpenTimelineIO's JSON: tracks of sound with clips, gaps and transitions, and markers. What it cannot take over it says.
 *
 * Source: the schema that the OpenTimelineIO project publishes, recalled from memory [M]: Timeline.1, Stack.1, Track.1, Clip.1 and .2, Gap.1,
 * Transition.1, Marker.1 and .2, ExternalReference.1, RationalTime.1, TimeRange.1, LinearTimeWarp.1, FreezeFrame.1.
 */
final class OtioReader
{
    public const MOST_MEGABYTES = 20;
    private const DEEPEST = 48;
    private const MOST_PARTS = 250_000;
    private const MOST_LEFT = 200;
    private const MOST_SECONDS = Mix::MAX_HOURS * 3600;

    /** @var list<string> */
    private array $left = [];

    /** @var list<array{int, string}> */
    private array $markers = [];
    private int $clips = 0;

    private function __construct(private readonly int $rate)
    {
    }

    /**
     * @param int $rate samples per second of the timeline
     *
     * @throws InvalidCut
     */
    public static function read(string $json, int $rate): Cut
    {
        \strlen($json) <= self::MOST_MEGABYTES * 1_000_000 || throw InvalidCut::tooLarge(self::MOST_MEGABYTES);
        // Each takes half a kilobyte once it is read.
        substr_count($json, '{') <= self::MOST_PARTS || throw InvalidCut::tooMany('parts', self::MOST_PARTS);
        $file = json_decode($json, true, self::DEEPEST);
        \is_array($file) || throw InvalidCut::tooDeep();

        return (new self($rate))->timeline($file);
    }

    /** @param array<array-key, mixed> $file */
    private function timeline(array $file): Cut
    {
        $stack = self::part($file, 'tracks');
        'Timeline' === self::kind($file) && 'Stack' === self::kind($stack) || throw InvalidCut::notOtio();
        $this->mark($file, 0);
        $this->mark($stack, 0);
        $tracks = [];
        foreach (self::children($stack) as $i => $track) {
            if ('Track' !== self::kind($track)) {
                $this->leave('A timeline within the timeline was left out.');
            } elseif ('Audio' === ($track['kind'] ?? null)) {
                $tracks[] = new CutTrack(self::name($track, 'Track '.($i + 1)), $this->clipsOf($track));
            } else {
                $this->mark($track, 0);
            }
        }
        \count($tracks) <= Mix::MAX_TRACKS || throw InvalidCut::tooMany('tracks', Mix::MAX_TRACKS);
        $this->clips > 0 || throw InvalidCut::noClips();
        usort($this->markers, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return new Cut(self::name($file, ''), $tracks, \array_slice($this->markers, 0, Mix::MAX_MARKERS), $this->left);
    }

    /**
     * @param array<array-key, mixed> $track
     *
     * @return list<CutClip>
     */
    private function clipsOf(array $track): array
    {
        $clips = [];
        $at = 0.0;
        // What a transition gives to the clip before it, and takes from the one after it: seconds.
        $over = null;
        foreach (self::children($track) as $item) {
            if ('Transition' === self::kind($item)) {
                $over = [$this->seconds($item['in_offset'] ?? null, 'a transition'), $this->seconds($item['out_offset'] ?? null, 'a transition')];
                $last = array_key_last($clips);
                if (null !== $last && abs($clips[$last]->at + $clips[$last]->length - $at * $this->rate) < 1.0) {
                    $clips[$last] = $clips[$last]->longer((int) round($over[1] * $this->rate));
                }
                continue;
            }
            $length = $this->lengthOf($item);
            $this->mark($item, $at);
            if ('Clip' === self::kind($item)) {
                $clip = $this->clip($item, $at, $length, $over);
                null === $clip || $clips[] = $clip;
            } else {
                'Gap' === self::kind($item) || $this->leave('“'.self::name($item, 'A nested part').'” is a timeline of its own, and was left out.');
                $last = array_key_last($clips);
                if (null !== $over && null !== $last) {
                    $clips[$last] = $clips[$last]->faded((int) round(array_sum($over) * $this->rate));
                }
            }
            $at += $length;
            $at <= self::MOST_SECONDS || throw InvalidCut::badTime(self::name($track, 'a track'));
            $over = null;
        }
        $last = array_key_last($clips);

        return null !== $over && null !== $last ? [...\array_slice($clips, 0, $last), $clips[$last]->faded((int) round(array_sum($over) * $this->rate))] : $clips;
    }

    /**
     * @param array<array-key, mixed> $item
     * @param ?array{float, float} $over the transition before it
     */
    private function clip(array $item, float $at, float $length, ?array $over): ?CutClip
    {
        $name = self::name($item, 'a clip');
        ++$this->clips <= Mix::MAX_CLIPS || throw InvalidCut::tooMany('clips', Mix::MAX_CLIPS);
        foreach (\is_array($item['effects'] ?? null) ? $item['effects'] : [] as $effect) {
            $speed = \is_array($effect) ? $effect['time_scalar'] ?? null : null;
            if (\is_array($effect) && ('FreezeFrame' === self::kind($effect) || (is_numeric($speed) && 1.0 !== (float) $speed))) {
                $this->leave("“{$name}” runs at another speed, and was left out.");

                return null;
            }
        }
        $media = $this->media($item);
        $range = self::part($item, 'source_range');
        $known = self::part($media, 'available_range');
        $start = [] === $range ? 0.0 : $this->seconds($range['start_time'] ?? null, $name);
        if ([] !== $known && [] !== $range) {
            $start -= $this->seconds($known['start_time'] ?? null, $name);
        }
        $file = self::fileName($media, $name);
        // A transition in front begins it earlier.
        $earlier = null === $over ? 0.0 : min($over[0], $at, max(0.0, $start));
        $from = (int) round(($at - $earlier) * $this->rate);
        $to = (int) round(($at + $length) * $this->rate);
        if ($to <= $from) {
            return null;
        }

        return new CutClip($name, $file, $from, max(0, (int) round(($start - $earlier) * $this->rate)), $to - $from, null === $over ? 0 : (int) round(array_sum($over) * $this->rate));
    }

    /** @param array<array-key, mixed> $item @return float seconds */
    private function lengthOf(array $item): float
    {
        $range = self::part($item, 'source_range') ?: self::part($this->media($item), 'available_range');

        return [] === $range ? 0.0 : max(0.0, $this->seconds($range['duration'] ?? null, self::name($item, 'a clip')));
    }

    /**
     * @param array<array-key, mixed> $item
     *
     * @return array<array-key, mixed>
     */
    private function media(array $item): array
    {
        $key = $item['active_media_reference_key'] ?? 'DEFAULT_MEDIA';

        return self::part($item, 'media_reference') ?: self::part(self::part($item, 'media_references'), \is_string($key) ? $key : 'DEFAULT_MEDIA');
    }

    /** @param array<array-key, mixed> $media */
    private static function fileName(array $media, string $else): string
    {
        $url = $media['target_url'] ?? null;
        $path = \is_string($url) ? rawurldecode((string) preg_replace('/[?#].*$/', '', $url)) : '';
        $name = trim(basename(str_replace('\\', '/', $path)));

        return '' === $name ? $else : self::clean($name);
    }

    /** @throws InvalidCut */
    private function seconds(mixed $time, string $where): float
    {
        $value = \is_array($time) ? $time['value'] ?? null : null;
        $rate = \is_array($time) ? $time['rate'] ?? null : null;
        is_numeric($value) && is_numeric($rate) && (float) $rate > 0.0 && is_finite((float) $value) || throw InvalidCut::badTime($where);
        $seconds = (float) $value / (float) $rate;

        return abs($seconds) <= 10 * self::MOST_SECONDS ? $seconds : throw InvalidCut::badTime($where);
    }

    /** @param array<array-key, mixed> $item */
    private function mark(array $item, float $at): void
    {
        foreach (\is_array($item['markers'] ?? null) ? $item['markers'] : [] as $marker) {
            if (\is_array($marker) && \count($this->markers) < Mix::MAX_MARKERS) {
                $start = $this->seconds(self::part($marker, 'marked_range')['start_time'] ?? null, 'a marker');
                // Markers of a clip count from where its part of the file begins.
                $of = self::part($item, 'source_range');
                $start -= 'Clip' === self::kind($item) && [] !== $of ? $this->seconds($of['start_time'] ?? null, 'a marker') : 0.0;
                $this->markers[] = [max(0, (int) round(($at + $start) * $this->rate)), self::name($marker, 'Marker')];
            }
        }
    }

    private function leave(string $sentence): void
    {
        \count($this->left) < self::MOST_LEFT && $this->left[] = $sentence;
    }

    /** @param array<array-key, mixed> $object @return string its schema, without the version */
    private static function kind(array $object): string
    {
        $schema = $object['OTIO_SCHEMA'] ?? '';

        return \is_string($schema) ? explode('.', $schema)[0] : '';
    }

    /**
     * @param array<array-key, mixed> $object
     *
     * @return array<array-key, mixed> empty where there is none
     */
    private static function part(array $object, string $name): array
    {
        $part = $object[$name] ?? null;

        return \is_array($part) ? $part : [];
    }

    /**
     * @param array<array-key, mixed> $object
     *
     * @return list<array<array-key, mixed>>
     */
    private static function children(array $object): array
    {
        return array_values(array_filter(self::part($object, 'children'), is_array(...)));
    }

    /** @param array<array-key, mixed> $object */
    private static function name(array $object, string $else): string
    {
        $name = $object['name'] ?? null;
        $name = \is_string($name) ? self::clean($name) : '';

        return '' === $name ? $else : $name;
    }

    /** A name as it may be shown: one line of 200 characters at most. */
    public static function clean(string $text): string
    {
        return trim(mb_substr((string) preg_replace('/[\p{Cc}\p{Cf}]+/u', ' ', mb_scrub($text)), 0, 200));
    }
}
