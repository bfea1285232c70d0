<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use JsonException;
use Wattage\Core\Captions\Cue;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Problem;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Aim;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Faders;
use Wattage\Core\Timeline\Hue;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Picture;
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
            $mix->has('ducking') ? array_map(static fn (Fields $rule): DuckRule => $rule->located(static fn (): DuckRule => RuleDocument::read($rule, $mix->int('rate'))), $mix->objects('ducking')) : [],
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
                'clips' => array_map(static fn (Clip $clip): array => $clip === ($but?->tracks[$track->id]->clips[$clip->id] ?? null) ? ['id' => $clip->id] : ClipDocument::toArray($clip), array_values($track->clips)),
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
            'gain' => CurveDocument::levelToJson($source->gain),
            ...(null === $source->right ? [] : ['right' => CurveDocument::levelToJson($source->right)]),
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
            'fader' => CurveDocument::levelToJson($track->fader),
            'pan' => $track->pan,
            'muted' => $track->muted,
            ...($track->locked ? ['locked' => true] : []),
            ...(null === $track->hue ? [] : ['hue' => $track->hue->value]),
            ...LanesDocument::toArray($track),
            ...($track->colour == Colour::none() ? [] : ['colour' => ColourDocument::toArray($track->colour)]),
        ];
    }

    private static function source(Fields $fields): Source
    {
        $fields->onlyHave('id', 'name', 'length', 'channels', 'gain', 'right', 'picture', 'file', 'marks');

        return $fields->located(static fn (): Source => new Source(
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
        foreach (array_map(ClipDocument::read(...), $fields->objects('clips')) as $clip) {
            isset($clips[$clip->id]) && throw \Wattage\Core\Timeline\InvalidMix::idTaken($clip->id, $fields->path('clips'));
            $clips[$clip->id] = $clip;
        }

        return $fields->located(static fn (): Track => new Track(
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

    private static function marker(Fields $fields): Marker
    {
        $fields->onlyHave('id', 'at', 'name');

        return $fields->located(static fn (): Marker => new Marker($fields->string('id'), $fields->int('at'), $fields->string('name')));
    }

    private static function cue(Fields $fields): Cue
    {
        $fields->onlyHave('from', 'to', 'text');

        return $fields->located(static fn (): Cue => new Cue(Span::of($fields->int('from'), $fields->int('to', 1)), $fields->string('text')));
    }

    private static function picture(Fields $fields): Picture
    {
        $fields->onlyHave('id', 'source', 'at', 'in', 'length');

        return $fields->located(static fn (): Picture => new Picture($fields->string('id'), $fields->string('source'), $fields->int('at'), $fields->int('in'), $fields->int('length', 1)));
    }
}
