<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** Which picture shows when: those that stand by themselves first, then those of clips; of several, the one that started last. */
final class PictureStrip
{
    /** @return list<Picture> in the order of time, none over another */
    public static function of(Mix $mix): array
    {
        $all = array_values($mix->pictures);
        foreach ($mix->tracks as $track) {
            foreach ($track->clips as $clip) {
                if (!$clip->detached && $mix->source($clip->source)->picture) {
                    array_unshift($all, new Picture($clip->id, $clip->source, $clip->at, $clip->in, $clip->length));
                }
            }
        }
        $edges = [];
        foreach ($all as $picture) {
            $edges[] = $picture->at;
            $edges[] = $picture->at + $picture->length;
        }
        $edges = array_values(array_unique($edges));
        sort($edges);
        $strip = [];
        for ($i = 0; $i + 1 < \count($edges); ++$i) {
            $top = self::topAt($all, $mix, $edges[$i]);
            if (null === $top) {
                continue;
            }
            $last = end($strip);
            $goesOn = false !== $last && $last->id === $top->id && $last->at + $last->length === $edges[$i];
            $from = $goesOn ? $last->at : $edges[$i];
            $goesOn && array_pop($strip);
            $strip[] = new Picture($top->id, $top->source, $from, $top->in + $from - $top->at, $edges[$i + 1] - $from);
        }

        return $strip;
    }

    /** @param list<Picture> $all */
    private static function topAt(array $all, Mix $mix, int $position): ?Picture
    {
        $top = null;
        foreach ($all as $picture) {
            if ($position >= $picture->at && $position < $picture->at + $picture->length) {
                $free = isset($mix->pictures[$picture->id]);
                $covered = null !== $top && isset($mix->pictures[$top->id]);
                if (null === $top || ($free && !$covered) || ($free === $covered && $picture->at >= $top->at)) {
                    $top = $picture;
                }
            }
        }

        return $top;
    }
}
