<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Track;

/** How far a track was lowered by hand already: by the curves of its clips, and by its level lane below its fader. */
final readonly class HandMade
{
    public function __construct(private Track $track)
    {
    }

    /** @return float dB, never above 0: as far as it is down everywhere in a span in which something of it sounds */
    public function over(Span $span): float
    {
        $lane = 0.0;
        if ($this->track->hasLevelLane()) {
            $lane = self::highest($this->track->lanes->level, $span) - $this->track->fader->db;
        }
        $clips = [];
        foreach ($this->track->clips as $clip) {
            $within = $clip->span()->within($span);
            null === $within || !$clip->ducked || $clips[] = self::highest($clip->curve, $within->shifted($clip->in - $clip->at));
        }

        return min(0.0, max($lane, -144.0) + ([] === $clips ? 0.0 : max($clips)));
    }

    private static function highest(Curve $curve, Span $span): float
    {
        $within = array_map(static fn (Keyframe $k): float => $k->level->db, $curve->within($span->from, $span->to)->keyframes);

        return max($curve->levelAt($span->from)->db, $curve->levelAt($span->to - 1)->db, ...$within);
    }
}
