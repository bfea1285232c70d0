<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Wattage\Core\Curve\Stretch;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Render\GainSchedule;
use Wattage\Core\Timeline\Mix;

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
            foreach ($track->clips as $clip) {
                $clips[] = self::clip($mix, $track->id, $clip->id);
            }
        }

        return [
            'rate' => $mix->rate,
            'frameRate' => $mix->frameRate->value,
            'length' => $mix->length(),
            'sources' => array_map(MixDocument::sourceToArray(...), array_values($mix->sources)),
            'tracks' => array_map(MixDocument::trackToArray(...), array_values($mix->tracks)),
            'clips' => $clips,
        ];
    }

    /**
     * What differs between two states. Clips are compared as stored, so that it does not matter how a state came about.
     *
     * @return Json
     */
    public static function changes(Mix $before, Mix $mix): array
    {
        $old = self::clipsByTrack($before);
        $new = self::clipsByTrack($mix);
        $louder = self::changedSources($before, $mix);
        $changed = [];
        foreach ($new as $id => [$track, $clip]) {
            if (($old[$id] ?? null) != [$track, $clip] || isset($louder[$mix->clip($id)->source])) {
                $changed[] = self::clip($mix, $track, $id);
            }
        }

        return [
            'frameRate' => $mix->frameRate->value,
            'length' => $mix->length(),
            'sources' => array_map(MixDocument::sourceToArray(...), array_values($mix->sources)),
            'tracks' => array_map(MixDocument::trackToArray(...), array_values($mix->tracks)),
            'changedClips' => $changed,
            'removedClips' => array_map(strval(...), array_keys(array_diff_key($old, $new))),
        ];
    }

    /** @return Json */
    private static function clip(Mix $mix, string $track, string $id): array
    {
        $clip = $mix->tracks[$track]->clips[$id];

        return [...MixDocument::clipToArray($clip), 'track' => $track, 'schedule' => array_map(self::stretch(...), GainSchedule::ofClip($mix, $clip))];
    }

    /** @return Json */
    private static function stretch(Stretch $stretch): array
    {
        $place = ['from' => $stretch->from, 'to' => $stretch->to];

        return $stretch->isBent()
            ? [...$place, 'db' => [$stretch->base, $stretch->slope, $stretch->bend], 'grid' => $stretch->grid]
            : [...$place, $stretch->inGain ? 'gain' : 'db' => [$stretch->base, $stretch->slope]];
    }

    /** @return array<string, array{string, \Wattage\Core\Timeline\Clip}> */
    private static function clipsByTrack(Mix $mix): array
    {
        $clips = [];
        foreach ($mix->tracks as $track) {
            foreach ($track->clips as $clip) {
                $clips[$clip->id] = [$track->id, $clip];
            }
        }

        return $clips;
    }

    /** @return array<string, true> ids of sources whose gain is another */
    private static function changedSources(Mix $before, Mix $after): array
    {
        $changed = [];
        foreach ($after->sources as $id => $source) {
            if (isset($before->sources[$id]) && !$before->sources[$id]->gain->equals($source->gain)) {
                $changed[$id] = true;
            }
        }

        return $changed;
    }
}
