<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Reading;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Cut\Cut;
use Wattage\Core\Edit\AddClip;
use Wattage\Core\Edit\AttachPicture;
use Wattage\Core\Edit\ChangeCut;
use Wattage\Core\Edit\DetachPicture;
use Wattage\Core\Edit\DuplicateClips;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InsertTime;
use Wattage\Core\Edit\JoinClips;
use Wattage\Core\Edit\LayCut;
use Wattage\Core\Edit\LoopClip;
use Wattage\Core\Edit\MoveClip;
use Wattage\Core\Edit\MoveClips;
use Wattage\Core\Edit\MovePicture;
use Wattage\Core\Edit\RemoveClips;
use Wattage\Core\Edit\RemovePictures;
use Wattage\Core\Edit\RemoveRange;
use Wattage\Core\Edit\RenameClip;
use Wattage\Core\Edit\ReplaceSound;
use Wattage\Core\Edit\SetClipsMuted;
use Wattage\Core\Edit\SlipClip;
use Wattage\Core\Edit\Split;
use Wattage\Core\Edit\TakeMix;
use Wattage\Core\Edit\TrimClip;
use Wattage\Core\Edit\TrimPicture;
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

/** Edits of where clips and pictures stand. */
final class LayoutEdits
{
    public static function read(string $kind, EditFields $read): ?Edit
    {
        $fields = $read->fields;

        return match ($kind) {
            'add-clip' => self::addClip($read),
            'lay-cut' => new LayCut(Name::check($fields->string('name')), ...self::cut($read)),
            'change-cut' => new ChangeCut(Name::check($fields->string('name')), ...self::cut($read), instead: $fields->has('instead') ? $fields->string('instead') : null),
            'take-mix' => new TakeMix(Name::check($fields->string('name')), MixDocument::fromArray($fields->document('mix')), $read->sources),
            'remove-clips' => new RemoveClips($read->clips(), $fields->bool('close', false)),
            'remove-range' => new RemoveRange($read->span(), $read->tracks(), $fields->bool('close', false)),
            'insert-time' => new InsertTime($read->time('at'), $read->length('length', 1), $read->tracks()),
            'move-clip' => new MoveClip($fields->string('clip'), $fields->string('track'), $read->time('at')),
            'move-clips' => new MoveClips($read->clips(), $read->later(), $fields->bool('ripple', false)),
            'trim-clip' => new TrimClip($fields->string('clip'), $read->span(), $fields->bool('ripple', false)),
            'slip-clip' => new SlipClip($fields->string('clip'), $read->later()),
            'split' => new Split(self::cuts($read)),
            'join-clips' => new JoinClips($read->clips()),
            'duplicate-clips' => new DuplicateClips($read->clips(), $fields->has('later') ? $read->later() : null),
            'loop-clip' => new LoopClip($fields->string('clip'), $read->time('until'), $read->length('overlap', default: 0)),
            'rename-clip' => new RenameClip($fields->string('clip'), Name::check($fields->string('name'))),
            'detach-picture' => new DetachPicture($read->clips()),
            'attach-picture' => new AttachPicture($read->clips()),
            'replace-sound' => new ReplaceSound($fields->string('clip'), $read->source()),
            'set-clips-muted' => new SetClipsMuted($read->clips(), $fields->bool('muted')),
            'trim-picture' => new TrimPicture($fields->string('picture'), $read->span()),
            'move-picture' => new MovePicture($fields->string('picture'), $read->time('at')),
            'remove-pictures' => new RemovePictures($read->names('pictures')),
            default => null,
        };
    }

    private static function addClip(EditFields $read): AddClip
    {
        $fields = $read->fields;
        $source = $read->source();
        $in = $fields->int('in', 0, $source->length - 1, 0);

        return new AddClip(
            $fields->string('track'),
            Name::checkId($fields->string('clip'), 'clip'),
            $source,
            $read->time('at'),
            $in,
            $fields->int('length', 1, $source->length - $in, $source->length - $in),
            $fields->has('stem') ? Track::named($fields->string('track'), $fields->has('name') ? $fields->string('name') : $source->name, $fields->choice('stem', Stem::class)) : null,
        );
    }

    /** @return array{tracks: non-empty-list<Track>, sources: array<string, Source>, markers: list<Marker>} */
    private static function cut(EditFields $read): array
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
                $clips[$clip->id] = $read->fields->has('cut') ? $clip->withCutPart(CutPart::ofClip($read->fields->string('cut'), $track->name, $clip)) : $clip;
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

    /** @return non-empty-list<array{string, int}> */
    private static function cuts(EditFields $read): array
    {
        $cuts = array_map(static fn (Fields $cut): array => [$cut->string('clip'), $cut->int('at')], $read->fields->objects('cuts', Split::MOST_CUTS));

        return [] === $cuts ? throw InvalidDocument::wrongType('cuts', 'a list with at least one entry') : $cuts;
    }
}
