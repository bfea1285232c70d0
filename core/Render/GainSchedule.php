<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Curve\Stretch;
use Wattage\Core\Curve\Stretches;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Fade\FadeRamp;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Side;

/**
 * How loud a clip is at each moment. The renderer and the player both follow it, so that what is heard is what is delivered.
 */
final class GainSchedule
{
    /** Gain of source and clip, all along; what moves comes on top. */
    public static function level(Mix $mix, Clip $clip): Decibels
    {
        return $clip->gain->plus($mix->source($clip->source)->commonGain());
    }

    /**
     * The curve of a clip, gains not included.
     *
     * @return non-empty-list<Stretch> in source time, covering the heard part of the clip
     */
    public static function wire(Clip $clip): array
    {
        return $clip->curve->stretchesWithin($clip->heard());
    }

    /**
     * The curve with the fades and, where its channels are opened, the levels of each of them.
     *
     * @return list<Part> none where the clip is muted, or both its channels are
     */
    public static function parts(Mix $mix, Clip $clip, Fades $fades): array
    {
        if ($clip->muted) {
            return [];
        }
        $base = self::faded($clip, self::wire($clip), $fades);
        $gain = self::level($mix, $clip);
        $source = $mix->source($clip->source);
        $routing = $clip->channels->mode->routing()->afterGains(...$source->channelGains());
        if (!$clip->channels->isOpen()) {
            return [new Part($routing, $gain, $base)];
        }
        $parts = [];
        foreach (Side::cases() as $side) {
            $level = $clip->channels->of($side);
            if (!$level->muted) {
                $parts[] = new Part(self::only($side, $routing), $gain, Stretches::product($base, self::channelWire($clip, $side)));
            }
        }

        return $parts;
    }

    /**
     * Gain and curve of one channel of an opened clip: what its own wire shows.
     *
     * @return non-empty-list<Stretch> in source time, covering the heard part of the clip
     */
    public static function channelWire(Clip $clip, Side $side): array
    {
        $level = $clip->channels->of($side);

        return array_map(static fn (Stretch $stretch): Stretch => $stretch->raised($level->gain), $level->curve->stretchesWithin($clip->heard()));
    }

    private static function only(Side $side, Routing $routing): Routing
    {
        return Side::Left === $side ? $routing->afterGains(1.0, 0.0) : $routing->afterGains(0.0, 1.0);
    }

    /**
     * @param non-empty-list<Stretch> $stretches
     *
     * @return non-empty-list<Stretch>
     */
    private static function faded(Clip $clip, array $stretches, Fades $fades): array
    {
        [$in, $out] = $fades->ofClip($clip->id);
        $end = $clip->in + $clip->length;
        $ramps = [];
        if ($in->length > 0) {
            $ramps[] = new FadeRamp($clip->in, $clip->in + $in->length, $in, false);
        }
        if ($out->length > 0) {
            $ramps[] = new FadeRamp($end - $out->length, $end, $out, true);
        }
        foreach ($ramps as $ramp) {
            $faded = [];
            foreach ($stretches as $stretch) {
                foreach (self::piecesAround($stretch, $ramp) as [$piece, $within]) {
                    $faded[] = $within ? $piece->times($ramp) : $piece;
                }
            }
            $stretches = [] === $faded ? $stretches : $faded;
        }

        return $stretches;
    }

    /** @return list<array{Stretch, bool}> the stretch cut at the ends of a fade, each piece with whether it lies within */
    private static function piecesAround(Stretch $stretch, FadeRamp $ramp): array
    {
        $edges = [$stretch->from];
        foreach ([$ramp->from, $ramp->to] as $edge) {
            if ($edge > $stretch->from && $edge < $stretch->to) {
                $edges[] = $edge;
            }
        }
        $edges[] = $stretch->to;
        $pieces = [];
        for ($i = 1, $n = \count($edges); $i < $n; ++$i) {
            $pieces[] = [$stretch->cut($edges[$i - 1], $edges[$i]), $edges[$i - 1] >= $ramp->from && $edges[$i] <= $ramp->to];
        }

        return $pieces;
    }
}
