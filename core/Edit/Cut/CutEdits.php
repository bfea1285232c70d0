<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Cut;

use Closure;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Cut\Cut;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\CutPart;
use Wattage\Core\Timeline\InvalidMix;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Name;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/** Edits that bring in a cut, a changed one, or a whole mix. */
final class CutEdits
{
    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            'lay-cut' => static fn (EditFields $read): Edit => new LayCut(Name::check($read->fields->string('name')), ...self::cut($read, $read->fields->has('cut') ? $read->fields->string('cut') : null)),
            'change-cut' => static fn (EditFields $read): Edit => new ChangeCut(Name::check($read->fields->string('name')), ...self::cut($read, $read->fields->string('cut')), instead: $read->fields->has('instead') ? $read->fields->string('instead') : null),
            'take-mix' => static fn (EditFields $read): Edit => new TakeMix(Name::check($read->fields->string('name')), MixDocument::fromArray($read->fields->document('mix')), $read->sources),
        ];
    }

    /** @return array{tracks: non-empty-list<Track>, sources: array<string, Source>, markers: list<Marker>} */
    private static function cut(EditFields $read, ?string $id): array
    {
        $sources = $tracks = $markers = [];
        $left = Cut::MOST_CLIPS;
        foreach ($read->fields->objects('tracks', Mix::MAX_TRACKS) as $fields) {
            $track = Track::named($fields->string('track'), $fields->string('name'), $fields->choice('stem', Stem::class));
            $clips = [];
            foreach ($fields->objects('clips', $left) as $of) {
                --$left;
                $source = $read->source($of);
                $sources[$source->id] = $source;
                $clip = self::cutClip($of, $source);
                isset($clips[$clip->id]) && throw InvalidMix::idTaken($clip->id, 'clips');
                $clips[$clip->id] = null === $id ? $clip : $clip->withCutPart(CutPart::ofClip($id, $track->name, $clip));
            }
            $tracks[] = $track->withClip(...array_values($clips));
        }
        foreach ($read->fields->has('markers') ? $read->fields->objects('markers', Mix::MAX_MARKERS) : [] as $marker) {
            $markers[] = new Marker($marker->string('marker'), $marker->int('at'), $marker->string('name'));
        }

        return ['tracks' => [] === $tracks ? throw InvalidDocument::wrongType('tracks', 'a list with at least one entry') : $tracks, 'sources' => $sources, 'markers' => $markers];
    }

    private static function cutClip(Fields $clip, Source $source): Clip
    {
        $in = $clip->int('in', 0, $source->length - 1);

        return new Clip(
            Name::checkId($clip->string('clip'), 'clip'), $source->id, Name::check($clip->string('name')), $clip->int('at'), $in, $clip->int('length', 1, $source->length - $in), Decibels::unchanged(), Curve::flat(),
            fadeIn: Fade::of($clip->int('fadeIn', default: 0)), fadeOut: Fade::of($clip->int('fadeOut', default: 0)),
        );
    }
}
