<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use stdClass;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/**
 * Writes a mix as a cut in OpenTimelineIO, for programs that know no levels: tracks with clips, gaps, transitions where two clips overlap, and
 * markers, all in samples. The mix as it is goes along as metadata under "wattage", for those that know it.
 *
 * Source: as {@see OtioReader}.
 */
final readonly class OtioWriter
{
    private function __construct(private Mix $mix)
    {
    }

    /** @param array<string, string> $files names of files by source id */
    public static function write(Mix $mix, string $name, array $files): string
    {
        $writer = new self($mix);
        $tracks = [];
        foreach ($mix->tracks as $track) {
            foreach (self::layers($track) as $layer => $clips) {
                $tracks[] = [
                    'OTIO_SCHEMA' => 'Track.1', 'name' => 0 === $layer ? $track->name : "{$track->name} ".($layer + 1), 'kind' => 'Audio',
                    'children' => $writer->children($clips, $files),
                    'metadata' => ['wattage' => ['track' => $track->id, 'stem' => $track->stem->value]],
                ];
            }
        }

        return json_encode([
            'OTIO_SCHEMA' => 'Timeline.1', 'name' => $name, 'global_start_time' => null,
            'tracks' => ['OTIO_SCHEMA' => 'Stack.1', 'name' => 'tracks', 'children' => $tracks, 'markers' => array_map($writer->marker(...), array_values($mix->markers)), 'metadata' => new stdClass()],
            'metadata' => ['wattage' => MixDocument::toArray($mix), Carried::FILES => (object) array_intersect_key($files, $mix->sources)],
        ], \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR);
    }

    /**
     * Clips in rows in which each may reach into the next, but none over the one after that: a track of OpenTimelineIO has nothing beneath.
     *
     * @return non-empty-list<list<Clip>>
     */
    private static function layers(Track $track): array
    {
        $layers = [[]];
        foreach ($track->inOrder() as $clip) {
            foreach ($layers as $i => $row) {
                $last = end($row);
                $beforeLast = prev($row);
                $end = static fn (Clip|false $one): int => false === $one ? 0 : $one->at + $one->length;
                if (false === $last || ($clip->at > $last->at && $end($clip) > $end($last) && $end($beforeLast) <= $clip->at)) {
                    $layers[$i][] = $clip;
                    continue 2;
                }
            }
            $layers[] = [$clip];
        }

        return $layers;
    }

    /**
     * @param list<Clip> $clips
     * @param array<string, string> $files
     *
     * @return list<array<string, mixed>>
     */
    private function children(array $clips, array $files): array
    {
        $children = [];
        $at = 0;
        foreach ($clips as $i => $clip) {
            $next = $clips[$i + 1] ?? null;
            // Of an overlap half goes to either side, and a transition tells of it.
            $before = $at > $clip->at ? $at - $clip->at : 0;
            $over = null === $next ? 0 : max(0, $clip->at + $clip->length - $next->at);
            $clip->at > $at && $children[] = ['OTIO_SCHEMA' => 'Gap.1', 'source_range' => $this->range(0, $clip->at - $at)];
            $length = $clip->length - $before - ($over - intdiv($over, 2));
            $children[] = [
                'OTIO_SCHEMA' => 'Clip.2', 'name' => $clip->name, 'source_range' => $this->range($clip->in + $before, $length), 'active_media_reference_key' => 'DEFAULT_MEDIA',
                'media_references' => ['DEFAULT_MEDIA' => ['OTIO_SCHEMA' => 'ExternalReference.1', 'target_url' => rawurlencode($files[$clip->source] ?? $this->mix->sources[$clip->source]->name), 'available_range' => $this->range(0, $this->mix->sources[$clip->source]->length)]],
                'metadata' => ['wattage' => ['clip' => $clip->id]],
            ];
            $over > 0 && $children[] = ['OTIO_SCHEMA' => 'Transition.1', 'transition_type' => 'SMPTE_Dissolve', 'in_offset' => $this->time(intdiv($over, 2)), 'out_offset' => $this->time($over - intdiv($over, 2))];
            $at = $clip->at + $before + $length;
        }

        return $children;
    }

    /** @return array<string, mixed> */
    private function marker(Marker $marker): array
    {
        return ['OTIO_SCHEMA' => 'Marker.2', 'name' => $marker->name, 'marked_range' => $this->range($marker->at, 0)];
    }

    /** @return array<string, mixed> */
    private function range(int $from, int $length): array
    {
        return ['OTIO_SCHEMA' => 'TimeRange.1', 'start_time' => $this->time($from), 'duration' => $this->time($length)];
    }

    /** @return array<string, mixed> */
    private function time(int $samples): array
    {
        return ['OTIO_SCHEMA' => 'RationalTime.1', 'value' => (float) $samples, 'rate' => (float) $this->mix->rate];
    }
}
