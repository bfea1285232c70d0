<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;

/** Recordings of one occasion as a cut: each whole, on a track of its own, where it began. */
final readonly class Together
{
    /**
     * @param list<array{name: string, source: Source, began: ?int, marks: list<array{int, string}>}> $sources began: samples since midnight; marks: samples of the source
     * @param int $at timeline samples where the first begins
     * @param bool $byTime each where its time of day says; without it all begin at once
     *
     * @throws InvalidCut when one does not say when it began
     */
    public static function of(array $sources, int $at, bool $byTime, Mix $mix): Cut
    {
        $began = array_map(static fn (array $one): int => $byTime ? $one['began'] ?? throw InvalidCut::noTime($one['name']) : 0, $sources);
        $first = [] === $began ? 0 : min($began);
        $tracks = $markers = [];
        foreach ($sources as $i => $one) {
            $start = $at + $began[$i] - $first;
            $start + $one['source']->length <= Mix::MAX_HOURS * 3600 * $mix->rate || throw InvalidCut::tooFarApart($one['name']);
            $tracks[] = new CutTrack(self::track($one['name']), [new CutClip($one['name'], $one['source']->id, $start, 0, $one['source']->length)]);
            foreach ($one['marks'] as [$mark, $name]) {
                $markers[] = [$start + $mark, $name];
            }
        }
        usort($markers, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return new Cut(1 === \count($sources) ? $sources[0]['name'] : \count($sources).' sources together', $tracks, \array_slice($markers, 0, Mix::MAX_MARKERS - \count($mix->markers)), []);
    }

    /** A channel gives its track the name that the recorder gave it. */
    private static function track(string $name): string
    {
        $parts = explode(' · ', $name);

        return (string) preg_replace('/\.\w{1,5}$/', '', $parts[1] ?? $parts[0]);
    }
}
