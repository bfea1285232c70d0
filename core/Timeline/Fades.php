<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Fade\Fade;

/**
 * The fades that are heard on a track. Where a clip begins while an earlier one still sounds and ends after it, the two cross
 * over for as long as they overlap, in the shape of the later one's fade in; elsewhere a clip has the fades it was given. A clip
 * that lies wholly over another crosses with nothing.
 */
final readonly class Fades
{
    /** @param array<string, array{Fade, Fade}> $fades in and out, by clip */
    private function __construct(private array $fades)
    {
    }

    public static function of(Track $track): self
    {
        $clips = $track->inOrder();
        $fades = [];
        foreach ($clips as $clip) {
            $fades[$clip->id] = [$clip->fadeIn, $clip->fadeOut];
        }
        foreach (self::crossings($clips) as [$earlier, $later]) {
            $cross = Fade::of($earlier->end() - $later->at, $later->fadeIn->shape);
            $fades[$earlier->id] = [$fades[$earlier->id][0], $cross];
            $fades[$later->id] = [$cross, $fades[$later->id][1]];
        }

        return new self($fades);
    }

    /** @return array{Fade, Fade} in and out */
    public function ofClip(string $id): array
    {
        return $this->fades[$id] ?? [Fade::none(), Fade::none()];
    }

    /**
     * Pairs of clips of which the first is still sounding when the second begins, and the second goes on when it has ended.
     *
     * @param list<Clip> $clips in the order of time
     *
     * @return list<array{Clip, Clip}>
     */
    private static function crossings(array $clips): array
    {
        $pairs = [];
        $longest = null;
        foreach ($clips as $clip) {
            if (null !== $longest && $clip->at > $longest->at && $clip->at < $longest->end() && $clip->end() > $longest->end()) {
                $pairs[] = [$longest, $clip];
            }
            $longest = null === $longest || $clip->end() > $longest->end() ? $clip : $longest;
        }

        return $pairs;
    }
}
