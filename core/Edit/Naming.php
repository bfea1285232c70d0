<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Time\Span;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;

/** How labels name several clips, keyframes, and ranges of time. */
final class Naming
{
    /** @param non-empty-list<string> $ids */
    public static function clips(Mix $mix, array $ids): string
    {
        return 1 === \count($ids) ? $mix->clip($ids[0])->name : \sprintf('%d clips', \count($ids));
    }

    /**
     * Names of the tracks that hold clips.
     *
     * @param list<string> $clips
     *
     * @return list<string>
     */
    public static function tracksOf(Mix $mix, array $clips): array
    {
        return array_values(array_unique(array_map(static fn (string $id): string => $mix->trackOf($id)->name, $clips)));
    }

    /**
     * " on Music only", " on 3 tracks only".
     *
     * @param non-empty-list<string> $tracks names
     */
    public static function only(array $tracks): string
    {
        return 1 === \count($tracks) ? " on {$tracks[0]} only" : \sprintf(' on %d tracks only', \count($tracks));
    }

    /**
     * "keyframe of Slow accordion", "12 keyframes in 3 clips".
     *
     * @param non-empty-list<Chosen> $chosen
     */
    public static function keyframes(Mix $mix, array $chosen): string
    {
        $count = array_sum(array_map(static fn (Chosen $c): int => \count($c->keyframes), $chosen));
        $what = 1 === $count ? 'keyframe' : "{$count} keyframes";

        return 1 === \count($chosen) ? $what.' of '.$chosen[0]->wire->in($mix)->name() : \sprintf('%s in %d clips', $what, \count($chosen));
    }

    public static function span(Mix $mix, Span $span): string
    {
        return Timecode::clock($span->from, $mix->rate).'–'.Timecode::clock($span->to, $mix->rate);
    }

    /** "0.50 s" */
    public static function seconds(Mix $mix, int $samples): string
    {
        return \sprintf('%.2f s', $samples / $mix->rate);
    }

    /** @param float $pan −1 left … 1 right */
    public static function pan(float $pan): string
    {
        return match (true) {
            $pan < 0.0 => \sprintf('%d %% left', (int) round(-100 * $pan)),
            $pan > 0.0 => \sprintf('%d %% right', (int) round(100 * $pan)),
            default => 'centre',
        };
    }

    /** "11", "0.5": a difference in dB without its sign. */
    public static function amount(float $db): string
    {
        return rtrim(rtrim(\sprintf('%.1f', abs($db)), '0'), '.');
    }
}
