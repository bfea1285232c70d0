<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Closure;
use JsonException;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RampKind;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Problem;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/** The mix JSON format, both ways. Described in docs/formats.md and docs/mix.schema.json. */
final class MixDocument
{
    public const FORMAT = 'wattage-mix';
    public const VERSION = 1;

    /** @throws Problem naming the field that is wrong */
    public static function decode(string $json): Mix
    {
        try {
            return self::fromArray(json_decode($json, true, 32, \JSON_THROW_ON_ERROR));
        } catch (JsonException $reason) {
            throw InvalidDocument::notJson($reason->getMessage());
        }
    }

    public static function encode(Mix $mix): string
    {
        return json_encode(self::toArray($mix), \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE | \JSON_PRESERVE_ZERO_FRACTION);
    }

    /** @throws Problem naming the field that is wrong */
    public static function fromArray(mixed $document): Mix
    {
        $mix = Fields::of($document);
        $mix->onlyHave('format', 'version', 'rate', 'frameRate', 'sources', 'tracks');
        self::FORMAT === $mix->string('format') || throw InvalidDocument::notAMix();
        $version = $mix->int('version', 1);
        self::VERSION === $version || throw InvalidDocument::newerVersion($version);

        return Mix::of(
            $mix->int('rate'),
            FrameRate::named($mix->string('frameRate')),
            array_map(self::source(...), $mix->objects('sources')),
            array_map(self::track(...), $mix->objects('tracks')),
        );
    }

    /** @return array<string, mixed> */
    public static function toArray(Mix $mix): array
    {
        return [
            'format' => self::FORMAT,
            'version' => self::VERSION,
            'rate' => $mix->rate,
            'frameRate' => $mix->frameRate->value,
            'sources' => array_map(self::sourceToArray(...), array_values($mix->sources)),
            'tracks' => array_map(static fn (Track $track): array => [
                ...self::trackToArray($track),
                'clips' => array_map(self::clipToArray(...), array_values($track->clips)),
            ], array_values($mix->tracks)),
        ];
    }

    /** @return array<string, mixed> */
    public static function sourceToArray(Source $source): array
    {
        return ['id' => $source->id, 'name' => $source->name, 'length' => $source->length, 'channels' => $source->channels, 'gain' => self::levelToJson($source->gain)];
    }

    /** @return array<string, mixed> the track without its clips */
    public static function trackToArray(Track $track): array
    {
        return ['id' => $track->id, 'name' => $track->name, 'stem' => $track->stem->value, 'fader' => self::levelToJson($track->fader), 'pan' => $track->pan, 'muted' => $track->muted];
    }

    /** @return array<string, mixed> */
    public static function clipToArray(Clip $clip): array
    {
        return [
            'id' => $clip->id,
            'source' => $clip->source,
            'name' => $clip->name,
            'at' => $clip->at,
            'in' => $clip->in,
            'length' => $clip->length,
            'gain' => self::levelToJson($clip->gain),
            'curve' => array_map(self::keyframeToArray(...), $clip->curve->keyframes),
        ];
    }

    /** @return float|string dB, or "silence": JSON has no infinity */
    public static function levelToJson(Decibels $level): float|string
    {
        return $level->isSilence() ? 'silence' : $level->db;
    }

    /** @throws Problem */
    public static function ramp(Fields $fields, string $name): Ramp
    {
        $shape = $fields->isText($name) ? null : $fields->object($name);
        $kind = RampKind::tryFrom($shape?->string('kind') ?? $fields->string($name)) ?? throw InvalidDocument::wrongType($fields->path($name), 'line, smooth, hold or gain');
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

    /** @return array<string, mixed> */
    private static function keyframeToArray(Keyframe $keyframe): array
    {
        return ['at' => $keyframe->position, 'level' => self::levelToJson($keyframe->level), 'ramp' => self::rampToJson($keyframe->ramp)];
    }

    private static function source(Fields $fields): Source
    {
        $fields->onlyHave('id', 'name', 'length', 'channels', 'gain', 'file');

        return self::located($fields, static fn (): Source => new Source(
            $fields->string('id'),
            $fields->string('name'),
            $fields->int('length', 1),
            $fields->int('channels', 1, 2),
            $fields->level('gain', default: Decibels::unchanged()),
        ));
    }

    private static function track(Fields $fields): Track
    {
        $fields->onlyHave('id', 'name', 'stem', 'fader', 'pan', 'muted', 'clips');
        $stem = Stem::tryFrom($fields->string('stem')) ?? throw InvalidDocument::wrongType($fields->path('stem'), 'speech, music, ambience or effects');
        $clips = [];
        foreach (array_map(self::clip(...), $fields->objects('clips')) as $clip) {
            isset($clips[$clip->id]) && throw \Wattage\Core\Timeline\InvalidMix::idTaken($clip->id, $fields->path('clips'));
            $clips[$clip->id] = $clip;
        }

        return self::located($fields, static fn (): Track => new Track(
            $fields->string('id'),
            $fields->string('name'),
            $stem,
            $fields->level('fader', Decibels::MAX_FADER, Decibels::unchanged()),
            $fields->float('pan', -1, 1, 0.0),
            $fields->bool('muted', false),
            $clips,
        ));
    }

    private static function clip(Fields $fields): Clip
    {
        $fields->onlyHave('id', 'source', 'name', 'at', 'in', 'length', 'gain', 'curve');

        return self::located($fields, static fn (): Clip => new Clip(
            $fields->string('id'),
            $fields->string('source'),
            $fields->string('name'),
            $fields->int('at'),
            $fields->int('in'),
            $fields->int('length', 1),
            $fields->level('gain', default: Decibels::unchanged()),
            $fields->has('curve') ? self::curve($fields) : Curve::flat(),
        ));
    }

    /** Thousands of keyframes are read for every edit, so the usual ones take a short way, and only the others are asked field by field. */
    private static function curve(Fields $fields): Curve
    {
        $ramps = array_column(array_map(static fn (RampKind $kind): array => [$kind->value, Ramp::of($kind)], RampKind::cases()), 1, 0);
        $keyframes = [];
        foreach ($fields->list('curve') as $i => $value) {
            $usual = \is_array($value) && 3 === \count($value) && \is_int($at = $value['at'] ?? null) && $at >= 0
                && (\is_float($level = $value['level'] ?? null) || \is_int($level)) && $level <= Decibels::MAX_CLIP
                && \is_string($kind = $value['ramp'] ?? null) && isset($ramps[$kind]);
            $keyframes[] = $usual ? new Keyframe($at, Decibels::of($level), $ramps[$kind]) : self::keyframe(Fields::of($value, $fields->path("curve[{$i}]")));
        }

        return Curve::of($keyframes);
    }

    private static function keyframe(Fields $fields): Keyframe
    {
        return new Keyframe($fields->int('at'), $fields->level('level'), $fields->has('ramp') ? self::ramp($fields, 'ramp') : Ramp::line());
    }

    /**
     * @template T
     *
     * @param Closure(): T $make
     *
     * @return T
     */
    private static function located(Fields $fields, Closure $make): mixed
    {
        try {
            return $make();
        } catch (InvalidDocument $problem) {
            throw $problem;
        } catch (Problem $problem) {
            $field = $problem->field();
            throw InvalidDocument::at(str_starts_with($field, $fields->path('')) ? $field : $fields->path($field), $problem);
        }
    }
}
