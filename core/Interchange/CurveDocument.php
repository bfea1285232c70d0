<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RampKind;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Problem;

/** Keyframes with their ramps, and levels, as JSON has them, both ways. */
final class CurveDocument
{
    /** Thousands of keyframes are read for every edit, so the usual ones take a short way, and only the others are asked field by field. */
    public static function read(Fields $fields, string $name = 'curve'): Curve
    {
        $ramps = array_column(array_map(static fn (RampKind $kind): array => [$kind->value, Ramp::of($kind)], RampKind::cases()), 1, 0);
        $keyframes = [];
        foreach ($fields->list($name) as $i => $value) {
            $usual = \is_array($value) && 3 === \count($value) && \is_int($at = $value['at'] ?? null) && $at >= 0
                && (\is_float($level = $value['level'] ?? null) || \is_int($level)) && $level <= Decibels::MAX_CLIP
                && \is_string($kind = $value['ramp'] ?? null) && isset($ramps[$kind]);
            $keyframes[] = $usual ? new Keyframe($at, Decibels::of($level), $ramps[$kind]) : self::keyframe(Fields::of($value, $fields->path("{$name}[{$i}]")));
        }

        return Curve::of($keyframes);
    }

    /** @return list<array<string, mixed>> */
    public static function toArray(Curve $curve): array
    {
        return array_map(self::keyframeToArray(...), $curve->keyframes);
    }

    private static function keyframe(Fields $fields): Keyframe
    {
        return new Keyframe($fields->int('at'), $fields->level('level'), $fields->has('ramp') ? self::ramp($fields, 'ramp') : Ramp::line());
    }

    /** @return array<string, mixed> */
    private static function keyframeToArray(Keyframe $keyframe): array
    {
        return ['at' => $keyframe->position, 'level' => self::levelToJson($keyframe->level), 'ramp' => self::rampToJson($keyframe->ramp)];
    }

    /** @throws Problem */
    public static function ramp(Fields $fields, string $name): Ramp
    {
        $shape = $fields->isText($name) ? null : $fields->object($name);
        $kind = null === $shape ? $fields->choice($name, RampKind::class) : $shape->choice('kind', RampKind::class);
        if (null === $shape || RampKind::Smooth !== $kind) {
            return Ramp::of($kind);
        }

        return Ramp::smooth(
            $shape->float('easeOut', 0, 1, 0.5),
            $shape->float('easeIn', 0, 1, 0.5),
            $shape->float('windowFrom', 0, 1, 0.0),
            $shape->float('windowTo', 0, 1, 1.0),
            $shape->float('tilt', -1000, 1000, 0.0),
        );
    }

    /** @return string|array<string, float|string> the kind alone, or with the shape where that is not the usual one */
    private static function rampToJson(Ramp $ramp): string|array
    {
        $usual = RampKind::Smooth !== $ramp->kind || (0.5 === $ramp->easeOut && 0.5 === $ramp->easeIn && 0.0 === $ramp->windowFrom && 1.0 === $ramp->windowTo && 0.0 === $ramp->tilt);

        return $usual ? $ramp->kind->value : [
            'kind' => $ramp->kind->value,
            'easeOut' => $ramp->easeOut,
            'easeIn' => $ramp->easeIn,
            'windowFrom' => $ramp->windowFrom,
            'windowTo' => $ramp->windowTo,
            'tilt' => $ramp->tilt,
        ];
    }

    /** @return float|string dB, or "silence": JSON has no infinity */
    public static function levelToJson(Decibels $level): float|string
    {
        return $level->isSilence() ? 'silence' : $level->db;
    }
}
