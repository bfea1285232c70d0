<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Closure;
use JsonException;
use Wattage\Core\Captions\Cue;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RampKind;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Fade\FadeShape;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Problem;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Aim;
use Wattage\Core\Timeline\ChannelLevel;
use Wattage\Core\Timeline\ChannelMode;
use Wattage\Core\Timeline\Channels;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\CutPart;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Faders;
use Wattage\Core\Timeline\Hue;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Picture;
use Wattage\Core\Timeline\Side;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\SpokenMarks;
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
        return self::fromArray(self::parsed($json));
    }

    public static function encode(Mix $mix): string
    {
        return self::json(self::toArray($mix));
    }

    /** @throws InvalidDocument */
    public static function parsed(string $json): mixed
    {
        try {
            return json_decode($json, true, 32, \JSON_THROW_ON_ERROR);
        } catch (JsonException $reason) {
            throw InvalidDocument::notJson($reason->getMessage());
        }
    }

    /** Such that every number is read again as it was. */
    public static function json(mixed $value): string
    {
        return json_encode($value, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE | \JSON_PRESERVE_ZERO_FRACTION);
    }

    /** @throws Problem naming the field that is wrong */
    public static function fromArray(mixed $document): Mix
    {
        $mix = Fields::of($document);
        $mix->onlyHave('format', 'version', 'rate', 'frameRate', 'sources', 'tracks', 'markers', 'pictures', 'aim', 'captions', 'faders', 'ducking');
        self::FORMAT === $mix->string('format') || throw InvalidDocument::notAMix();
        $version = $mix->int('version', 1);
        self::VERSION === $version || throw InvalidDocument::newerVersion($version);

        return Mix::of(
            $mix->int('rate'),
            FrameRate::named($mix->string('frameRate')),
            array_map(self::source(...), $mix->objects('sources')),
            array_map(self::track(...), $mix->objects('tracks')),
            $mix->has('markers') ? array_map(self::marker(...), $mix->objects('markers')) : [],
            $mix->has('pictures') ? array_map(self::picture(...), $mix->objects('pictures')) : [],
            $mix->has('aim') ? AimDocument::read($mix->object('aim')) : new Aim(),
            $mix->has('captions') ? array_map(self::cue(...), $mix->objects('captions')) : [],
            $mix->has('faders') ? LanesDocument::faders($mix->object('faders')) : new Faders(),
            $mix->has('ducking') ? array_map(static fn (Fields $rule): DuckRule => self::located($rule, static fn (): DuckRule => RuleDocument::read($rule, $mix->int('rate'))), $mix->objects('ducking')) : [],
        );
    }

    /**
     * @param ?Mix $but what is the very same object there is named by its id alone, and captions are left out
     *
     * @return array<string, mixed>
     */
    public static function toArray(Mix $mix, ?Mix $but = null): array
    {
        return [
            'format' => self::FORMAT,
            'version' => self::VERSION,
            'rate' => $mix->rate,
            'frameRate' => $mix->frameRate->value,
            'sources' => array_map(self::sourceToArray(...), array_values($mix->sources)),
            'tracks' => array_map(static fn (Track $track): array => $track === ($but?->tracks[$track->id] ?? null) ? ['id' => $track->id] : [
                ...self::trackToArray($track),
                'clips' => array_map(static fn (Clip $clip): array => $clip === ($but?->tracks[$track->id]->clips[$clip->id] ?? null) ? ['id' => $clip->id] : self::clipToArray($clip), array_values($track->clips)),
            ], array_values($mix->tracks)),
            ...($mix->aim == new Aim() ? [] : ['aim' => AimDocument::toArray($mix->aim)]),
            ...($mix->faders == new Faders() ? [] : ['faders' => LanesDocument::fadersToArray($mix->faders)]),
            ...([] === $mix->rules ? [] : ['ducking' => array_map(static fn (DuckRule $rule): array => RuleDocument::toArray($rule, $mix->rate), array_values($mix->rules))]),
            ...([] === $mix->captions || $mix->captions === $but?->captions ? [] : ['captions' => array_map(self::cueToArray(...), $mix->captions)]),
            ...([] === $mix->markers ? [] : ['markers' => array_map(self::markerToArray(...), array_values($mix->markers))]),
            ...([] === $mix->pictures ? [] : ['pictures' => array_map(self::pictureToArray(...), array_values($mix->pictures))]),
        ];
    }

    /** @return array<string, mixed> */
    private static function cutPartToArray(CutPart $part, string $source): array
    {
        return ['id' => $part->cut, 'track' => $part->track, ...($part->source === $source ? [] : ['source' => $part->source]), 'at' => $part->at, 'in' => $part->in, 'length' => $part->length];
    }

    /** @return array<string, mixed> */
    public static function markerToArray(Marker $marker): array
    {
        return ['id' => $marker->id, 'at' => $marker->at, 'name' => $marker->name];
    }

    /** @return array{from: int, to: int, text: string} */
    public static function cueToArray(Cue $cue): array
    {
        return ['from' => $cue->span->from, 'to' => $cue->span->to, 'text' => $cue->text];
    }

    /** @return array<string, mixed> */
    public static function pictureToArray(Picture $picture): array
    {
        return ['id' => $picture->id, 'source' => $picture->source, 'at' => $picture->at, 'in' => $picture->in, 'length' => $picture->length];
    }

    /** @return array<string, mixed> */
    public static function sourceToArray(Source $source): array
    {
        return [
            'id' => $source->id,
            'name' => $source->name,
            'length' => $source->length,
            'channels' => $source->channels,
            'gain' => self::levelToJson($source->gain),
            ...(null === $source->right ? [] : ['right' => self::levelToJson($source->right)]),
            ...($source->picture ? ['picture' => true] : []),
            ...($source->marks->isEmpty() ? [] : ['marks' => ['speech' => LanesDocument::spansToArray($source->marks->speech), 'other' => LanesDocument::spansToArray($source->marks->other)]]),
        ];
    }

    /** @return array<string, mixed> the track without its clips */
    public static function trackToArray(Track $track): array
    {
        return [
            'id' => $track->id,
            'name' => $track->name,
            'stem' => $track->stem->value,
            'fader' => self::levelToJson($track->fader),
            'pan' => $track->pan,
            'muted' => $track->muted,
            ...($track->locked ? ['locked' => true] : []),
            ...(null === $track->hue ? [] : ['hue' => $track->hue->value]),
            ...LanesDocument::toArray($track),
            ...($track->colour == Colour::none() ? [] : ['colour' => ColourDocument::toArray($track->colour)]),
        ];
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
            'curve' => self::curveToArray($clip->curve),
            ...($clip->fadeIn->isUsual() ? [] : ['fadeIn' => self::fadeToArray($clip->fadeIn)]),
            ...($clip->fadeOut->isUsual() ? [] : ['fadeOut' => self::fadeToArray($clip->fadeOut)]),
            ...($clip->channels->isUsual() ? [] : ['channels' => self::channelsToArray($clip->channels)]),
            ...($clip->detached ? ['detached' => true] : []),
            ...($clip->muted ? ['muted' => true] : []),
            ...($clip->triggers ? [] : ['triggers' => false]),
            ...($clip->ducked ? [] : ['ducked' => false]),
            ...($clip->colour == Colour::none() ? [] : ['colour' => ColourDocument::toArray($clip->colour)]),
            ...(null === $clip->cutPart ? [] : ['cut' => self::cutPartToArray($clip->cutPart, $clip->source)]),
        ];
    }

    /** @return array<string, mixed> */
    public static function fadeToArray(Fade $fade): array
    {
        return ['length' => $fade->length, 'shape' => $fade->shape->value, ...($fade->isWhole() ? [] : ['windowFrom' => $fade->windowFrom, 'windowTo' => $fade->windowTo])];
    }

    /** @return array<string, mixed> */
    private static function channelsToArray(Channels $channels): array
    {
        $opened = $channels->isOpen() ? array_combine(array_column(Side::cases(), 'value'), array_map(static fn (Side $side): array => self::channelToArray($channels->of($side)), Side::cases())) : [];

        return ['mode' => $channels->mode->value, ...$opened];
    }

    /** @return array<string, mixed> */
    private static function channelToArray(ChannelLevel $level): array
    {
        return ['gain' => self::levelToJson($level->gain), 'curve' => array_map(self::keyframeToArray(...), $level->curve->keyframes), 'muted' => $level->muted];
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

    /** @return list<array<string, mixed>> */
    public static function curveToArray(Curve $curve): array
    {
        return array_map(self::keyframeToArray(...), $curve->keyframes);
    }

    /** @return array<string, mixed> */
    private static function keyframeToArray(Keyframe $keyframe): array
    {
        return ['at' => $keyframe->position, 'level' => self::levelToJson($keyframe->level), 'ramp' => self::rampToJson($keyframe->ramp)];
    }

    private static function source(Fields $fields): Source
    {
        $fields->onlyHave('id', 'name', 'length', 'channels', 'gain', 'right', 'picture', 'file', 'marks');

        return self::located($fields, static fn (): Source => new Source(
            $fields->string('id'),
            $fields->string('name'),
            $fields->int('length', 1),
            $fields->int('channels', 1, 2),
            $fields->level('gain', default: Decibels::unchanged()),
            $fields->has('right') ? $fields->level('right') : null,
            $fields->bool('picture', false),
            $fields->has('marks') ? self::marks($fields->object('marks')) : null,
        ));
    }

    private static function marks(Fields $fields): SpokenMarks
    {
        $fields->onlyHave('speech', 'other');

        return new SpokenMarks(LanesDocument::spans($fields, 'speech'), LanesDocument::spans($fields, 'other'));
    }

    private static function track(Fields $fields): Track
    {
        $fields->onlyHave('id', 'name', 'stem', 'fader', 'pan', 'muted', 'clips', 'locked', 'hue', 'lanes', 'ducking', 'band', 'colour');
        $stem = $fields->choice('stem', Stem::class);
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
            $fields->bool('locked', false),
            $fields->has('hue') ? $fields->choice('hue', Hue::class) : null,
            $fields->has('lanes') ? LanesDocument::lanes($fields->object('lanes')) : null,
            $fields->has('ducking') ? LanesDocument::ducking($fields->object('ducking')) : null,
            $fields->has('band') ? LanesDocument::ducking($fields->object('band')) : null,
            $fields->has('colour') ? ColourDocument::read($fields->object('colour')) : null,
        ));
    }

    private static function clip(Fields $fields): Clip
    {
        $fields->onlyHave('id', 'source', 'name', 'at', 'in', 'length', 'gain', 'curve', 'fadeIn', 'fadeOut', 'channels', 'detached', 'triggers', 'ducked', 'muted', 'cut', 'colour');

        return self::located($fields, static fn (): Clip => new Clip(
            $fields->string('id'),
            $fields->string('source'),
            $fields->string('name'),
            $fields->int('at'),
            $fields->int('in'),
            $fields->int('length', 1),
            $fields->level('gain', default: Decibels::unchanged()),
            $fields->has('curve') ? self::curve($fields) : Curve::flat(),
            $fields->has('fadeIn') ? self::fade($fields->object('fadeIn')) : null,
            $fields->has('fadeOut') ? self::fade($fields->object('fadeOut')) : null,
            $fields->has('channels') ? self::channels($fields->object('channels')) : null,
            $fields->bool('detached', false),
            $fields->bool('triggers', true),
            $fields->bool('ducked', true),
            $fields->bool('muted', false),
            $fields->has('cut') ? self::cutPart($fields->object('cut'), $fields->string('source')) : null,
            $fields->has('colour') ? ColourDocument::read($fields->object('colour')) : null,
        ));
    }

    /** @param string $source that of the clip, where the part names no other */
    private static function cutPart(Fields $fields, string $source): CutPart
    {
        $fields->onlyHave('id', 'track', 'source', 'at', 'in', 'length');

        return new CutPart($fields->string('id'), $fields->string('track'), $fields->has('source') ? $fields->string('source') : $source, $fields->int('at'), $fields->int('in'), $fields->int('length', 1));
    }

    /** @throws Problem */
    public static function fade(Fields $fields): Fade
    {
        $fields->onlyHave('length', 'shape', 'windowFrom', 'windowTo');

        return Fade::of($fields->int('length'), $fields->choice('shape', FadeShape::class, FadeShape::EqualPower), $fields->float('windowFrom', 0, 1, 0.0), $fields->float('windowTo', 0, 1, 1.0));
    }

    private static function channels(Fields $fields): Channels
    {
        $fields->onlyHave('mode', 'left', 'right');
        $mode = $fields->choice('mode', ChannelMode::class, ChannelMode::Stereo);
        $opened = $fields->has('left') || $fields->has('right');

        return $opened ? Channels::opened($mode, self::channel($fields->object('left')), self::channel($fields->object('right'))) : Channels::closed($mode);
    }

    private static function channel(Fields $fields): ChannelLevel
    {
        $fields->onlyHave('gain', 'curve', 'muted');

        return new ChannelLevel(
            $fields->level('gain', default: Decibels::unchanged()),
            $fields->has('curve') ? self::curve($fields) : Curve::flat(),
            $fields->bool('muted', false),
        );
    }

    private static function marker(Fields $fields): Marker
    {
        $fields->onlyHave('id', 'at', 'name');

        return self::located($fields, static fn (): Marker => new Marker($fields->string('id'), $fields->int('at'), $fields->string('name')));
    }

    private static function cue(Fields $fields): Cue
    {
        $fields->onlyHave('from', 'to', 'text');

        return self::located($fields, static fn (): Cue => new Cue(Span::of($fields->int('from'), $fields->int('to', 1)), $fields->string('text')));
    }

    private static function picture(Fields $fields): Picture
    {
        $fields->onlyHave('id', 'source', 'at', 'in', 'length');

        return self::located($fields, static fn (): Picture => new Picture($fields->string('id'), $fields->string('source'), $fields->int('at'), $fields->int('in'), $fields->int('length', 1)));
    }

    /** Thousands of keyframes are read for every edit, so the usual ones take a short way, and only the others are asked field by field. */
    public static function curve(Fields $fields, string $name = 'curve'): Curve
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
