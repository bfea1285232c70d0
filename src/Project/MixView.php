<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Closure;
use Wattage\App\View\FilterView;
use Wattage\App\View\StretchView;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Interchange\AimDocument;
use Wattage\Core\Interchange\ClipDocument;
use Wattage\Core\Interchange\CurveDocument;
use Wattage\Core\Interchange\LanesDocument;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Interchange\RuleDocument;
use Wattage\Core\Render\GainSchedule;
use Wattage\Core\Timeline\Aim;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\PictureStrip;
use Wattage\Core\Timeline\Side;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/**
 * A mix as the browser gets it: the mix JSON, with each clip's gain schedule beside it, whole or only what a step changed.
 *
 * @phpstan-type Json array<string, mixed>
 */
final class MixView
{
    /** @return Json */
    public static function whole(Mix $mix): array
    {
        $clips = [];
        foreach ($mix->tracks as $track) {
            $fades = Fades::of($track);
            foreach ($track->clips as $clip) {
                $clips[] = self::clip($mix, $track->id, $clip, $fades);
            }
        }

        return [...self::frame($mix), 'rate' => $mix->rate, 'clips' => $clips];
    }

    /**
     * @param list<string> $ids
     *
     * @return list<Json>
     */
    public static function clips(Mix $mix, array $ids): array
    {
        $fades = [];

        return array_map(static function (string $id) use ($mix, &$fades): array {
            $track = $mix->trackOf($id);

            return self::clip($mix, $track->id, $mix->clip($id), $fades[$track->id] ??= Fades::of($track));
        }, $ids);
    }

    /**
     * What differs between two states. Clips are compared as stored, so that it does not matter how a state came about; one whose
     * neighbours make it fade otherwise is sent again, too.
     *
     * @return Json
     */
    public static function changes(Mix $before, Mix $mix): array
    {
        $old = self::clipsByTrack($before);
        $new = self::clipsByTrack($mix);
        $changed = $placed = [];
        foreach ($new as $id => [$track, $clip, $fades]) {
            [$oldTrack, $oldClip, $oldFades] = $old[$id] ?? [null, null, null];
            if (null === $oldClip || !self::movesAlike($oldClip, $clip) || $oldFades != $fades || self::channelGains($before, $oldClip) !== self::channelGains($mix, $clip)) {
                $changed[] = [$track, $clip];
            } elseif ($oldTrack !== $track || $oldClip != $clip || !GainSchedule::level($before, $oldClip)->equals(GainSchedule::level($mix, $clip))) {
                $placed[] = [...self::place($mix, $clip), 'track' => $track];
            }
        }
        $fades = array_map(Fades::of(...), array_intersect_key($mix->tracks, array_flip(array_column($changed, 0))));
        $moved = array_values(array_filter($mix->tracks, static fn (Track $track): bool => self::isOther($before->tracks[$track->id] ?? null, $track, $before, $mix)));

        return [
            ...self::otherParts($before, $mix),
            ...(array_keys($before->tracks) === array_keys($mix->tracks) ? [] : ['order' => array_map(strval(...), array_keys($mix->tracks))]),
            'changedTracks' => array_map(static fn (Track $track): array => TrackView::of($track, $mix), $moved),
            'changedClips' => array_map(static fn (array $c): array => self::clip($mix, $c[0], $c[1], $fades[$c[0]]), $changed),
            'placedClips' => $placed,
            'removedClips' => array_map(strval(...), array_keys(array_diff_key($old, $new))),
        ];
    }

    /** Whether a track itself is otherwise, its clips aside; its lanes are told up to the end of the mix. */
    private static function isOther(?Track $old, Track $track, Mix $before, Mix $mix): bool
    {
        if ($old === $track && $before->length() === $mix->length()) {
            return false;
        }
        $own = static fn (Track $of): array => array_diff_key(get_object_vars($of), ['clips' => 1]);

        return null === $old || $own($old) != $own($track) || ($before->length() !== $mix->length() && TrackView::of($old, $before) !== TrackView::of($track, $mix));
    }

    /** @return Json the parts of the frame that say something else than before */
    private static function otherParts(Mix $before, Mix $mix): array
    {
        $parts = [];
        foreach (self::parts() as $name => [$stored, $shown]) {
            [$old, $new] = [$stored($before), $stored($mix)];
            if ($old !== $new && $old != $new) {
                $parts[$name] = $shown($mix);
            }
        }

        return $parts;
    }

    /** Whether all of two states of a clip is alike but where it stands, what it is called, and its gain all along. */
    private static function movesAlike(Clip $a, Clip $b): bool
    {
        return $a->source === $b->source && $a->in === $b->in && $a->length === $b->length && $a->muted === $b->muted && $a->colour == $b->colour
            && ($a->curve === $b->curve || $a->curve == $b->curve) && $a->channels == $b->channels && $a->fadeIn == $b->fadeIn && $a->fadeOut == $b->fadeOut;
    }

    /** @return array{float, float} */
    private static function channelGains(Mix $mix, Clip $clip): array
    {
        return $mix->source($clip->source)->channelGains();
    }

    /** @return Json what of a clip can change without its schedule */
    private static function place(Mix $mix, Clip $clip): array
    {
        return [
            'id' => $clip->id,
            'name' => $clip->name,
            'at' => $clip->at,
            'gain' => CurveDocument::levelToJson($clip->gain),
            'level' => CurveDocument::levelToJson(GainSchedule::level($mix, $clip)),
            'detached' => $clip->detached,
            'triggers' => $clip->triggers,
            'ducked' => $clip->ducked,
            'muted' => $clip->muted,
        ];
    }

    /** @return Json all but the clips */
    private static function frame(Mix $mix): array
    {
        return [
            ...array_map(static fn (array $part): mixed => $part[1]($mix), self::parts()),
            'tracks' => array_map(static fn (Track $track): array => TrackView::of($track, $mix), array_values($mix->tracks)),
        ];
    }

    /** @return array<string, array{Closure(Mix): mixed, Closure(Mix): mixed}> by field: what of the mix it comes from, and how it is told */
    private static function parts(): array
    {
        return [
            'frameRate' => [static fn (Mix $mix): mixed => $mix->frameRate, static fn (Mix $mix): mixed => $mix->frameRate->value],
            'length' => [static fn (Mix $mix): mixed => $mix->length(), static fn (Mix $mix): mixed => $mix->length()],
            'aim' => [static fn (Mix $mix): mixed => $mix->aim, static fn (Mix $mix): mixed => self::aim($mix->aim)],
            'captions' => [static fn (Mix $mix): mixed => $mix->captions, static fn (Mix $mix): mixed => array_map(MixDocument::cueToArray(...), $mix->captions)],
            'sources' => [static fn (Mix $mix): mixed => $mix->sources, static fn (Mix $mix): mixed => array_map(MixDocument::sourceToArray(...), array_values($mix->sources))],
            'faders' => [static fn (Mix $mix): mixed => $mix->faders, static fn (Mix $mix): mixed => LanesDocument::fadersToArray($mix->faders)],
            'rules' => [static fn (Mix $mix): mixed => $mix->rules, static fn (Mix $mix): mixed => array_map(static fn (DuckRule $rule): array => RuleDocument::toArray($rule, $mix->rate), array_values($mix->rules))],
            'markers' => [static fn (Mix $mix): mixed => $mix->markers, static fn (Mix $mix): mixed => array_map(MixDocument::markerToArray(...), array_values($mix->markers))],
            'pictures' => [static fn (Mix $mix): mixed => $mix->pictures, static fn (Mix $mix): mixed => array_map(MixDocument::pictureToArray(...), array_values($mix->pictures))],
            'strip' => [PictureStrip::of(...), static fn (Mix $mix): mixed => array_map(MixDocument::pictureToArray(...), PictureStrip::of($mix))],
        ];
    }

    /** @return Json */
    private static function clip(Mix $mix, string $track, Clip $clip, Fades $fades): array
    {
        [$in, $out] = $fades->ofClip($clip->id);
        $heard = GainSchedule::parts($mix, $clip, $fades);
        // Most clips are heard as their wire shows it.
        $asDrawn = [] !== $heard && 0 === $in->length && 0 === $out->length && !$clip->channels->isOpen();
        $wire = $asDrawn ? $heard[0]->stretches : GainSchedule::wire($clip);
        $parts = [];
        foreach ($heard as $part) {
            $r = $part->routing;
            $parts[] = ['routing' => [$r->leftToLeft, $r->rightToLeft, $r->leftToRight, $r->rightToRight], ...($asDrawn ? [] : ['schedule' => array_map(StretchView::of(...), $part->stretches)])];
        }

        return [
            ...ClipDocument::toArray($clip),
            ...self::place($mix, $clip),
            'track' => $track,
            'schedule' => array_map(StretchView::of(...), $wire),
            'parts' => $parts,
            ...($clip->colour->isNone() ? [] : ['filters' => FilterView::of($clip->colour)]),
            'fades' => [ClipDocument::fadeToArray($in), ClipDocument::fadeToArray($out)],
            ...self::channelWires($clip),
        ];
    }

    /** @return Json what the wires of the two channels show */
    private static function channelWires(Clip $clip): array
    {
        if (!$clip->channels->isOpen()) {
            return [];
        }
        $wires = array_map(static fn (Side $side): array => array_map(StretchView::of(...), GainSchedule::channelWire($clip, $side)), Side::cases());

        return ['channelSchedules' => array_combine(array_column(Side::cases(), 'value'), $wires)];
    }

    /** @return array<string, array{string, Clip, array{Fade, Fade}}> track, clip, and the fades heard, by clip */
    private static function clipsByTrack(Mix $mix): array
    {
        $clips = [];
        foreach ($mix->tracks as $track) {
            $fades = Fades::of($track);
            foreach ($track->clips as $clip) {
                $clips[$clip->id] = [$track->id, $clip, $fades->ofClip($clip->id)];
            }
        }

        return $clips;
    }

    /** @return array<string, mixed> with the zones of all stems, the usual ones too */
    private static function aim(Aim $aim): array
    {
        $zones = [];
        foreach (Stem::cases() as $stem) {
            $zones[$stem->value] = AimDocument::zoneToArray($aim->zone($stem));
        }

        return ['zones' => $zones] + AimDocument::toArray($aim);
    }
}
