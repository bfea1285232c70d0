<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** A moment of the programme by what sounds in it, so that it is found again when clips were moved, split, or time was taken out. */
final readonly class Anchor
{
    /** @param int $position source samples */
    public function __construct(public string $source, public int $position)
    {
    }

    /**
     * By the speech that sounds there, else by whatever does.
     *
     * @param int $at timeline samples
     *
     * @return ?self null where nothing sounds
     */
    public static function at(Mix $mix, int $at): ?self
    {
        $found = null;
        foreach ($mix->tracks as $track) {
            foreach ($track->clips as $clip) {
                if ($at >= $clip->at && $at < $clip->end() && (null === $found || Stem::Speech === $track->stem)) {
                    $found = new self($clip->source, $clip->toSource($at));
                    if (Stem::Speech === $track->stem) {
                        return $found;
                    }
                }
            }
        }

        return $found;
    }

    /** By the speech alone; null where no clip of speech is. */
    public static function ofSpeech(Mix $mix, int $at): ?self
    {
        foreach ($mix->tracks as $track) {
            foreach (Stem::Speech === $track->stem ? $track->clips : [] as $clip) {
                if ($at >= $clip->at && $at < $clip->end()) {
                    return new self($clip->source, $clip->toSource($at));
                }
            }
        }

        return null;
    }

    /**
     * Where it is now.
     *
     * @param int $near timeline samples: where it was; the same sound may be used more than once
     *
     * @return ?int timeline samples; null when it was cut out
     */
    public function in(Mix $mix, int $near): ?int
    {
        $nearest = null;
        foreach ($mix->tracks as $track) {
            foreach ($track->clips as $clip) {
                $at = $clip->at + $this->position - $clip->in;
                if ($clip->source === $this->source && $at >= $clip->at && $at < $clip->end() && (null === $nearest || abs($at - $near) < abs($nearest - $near))) {
                    $nearest = $at;
                }
            }
        }

        return $nearest;
    }
}
