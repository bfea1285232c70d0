<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Lane;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\Simplest;
use Wattage\Core\Curve\Sum;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\Lane;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** Moves what a lane does to another home: into the clips, where it travels with the sound, or into the level lane, where it stays on the timeline. */
final readonly class ConvertLane implements Edit
{
    /** dB by which the curve may differ for having fewer keyframes. */
    private const TOLERANCE = 0.03;

    /**
     * @param ?Lane $from null for the curves of the clips
     * @param ?Lane $to null for the curves of the clips
     */
    public function __construct(private string $track, private ?Lane $from, private ?Lane $to)
    {
        $from !== $to && (null === $to || Lane::Level === $to) || throw InvalidEdit::noSuchConversion();
    }

    public function label(Mix $before): string
    {
        $name = static fn (?Lane $lane): string => null === $lane ? 'clip keyframes' : "the {$lane->value} lane";

        return "Turn {$name($this->from)} of {$before->track($this->track)->name} into {$name($this->to)}";
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);
        $after = match ($this->from) {
            Lane::Ducking, Lane::Band => $this->givenWay($track, $track->givingWay(Lane::Band === $this->from)->curve, $before),
            Lane::Level => $this->intoClips($track, $track->lanes->level, false),
            null => $this->intoLevels($track, self::ofClips($track), $before),
        };
        $after = match ($this->from) {
            Lane::Ducking, Lane::Band => $after->withGivingWay(Lane::Band === $this->from, Ducking::none()),
            Lane::Level => $track->lanes->level->isFlat() ? $after : $after->withLanes($after->lanes->withLevel(Curve::flat()))->withFader(Decibels::unchanged()),
            null => $after->withClip(...array_map(static fn (Clip $clip): Clip => $clip->withCurve(Curve::flat()), array_values($after->clips))),
        };

        return $after == $track ? $before : $before->withTrack($after);
    }

    /** Of the band of speech, too, it becomes a level: all of the sound gives way then. */
    private function givenWay(Track $track, Curve $lane, Mix $mix): Track
    {
        return null === $this->to ? $this->intoClips($track, $lane, true) : $this->intoLevels($track, $lane, $mix);
    }

    /** @param bool $ducking whether clips that do not give way are let alone */
    private function intoClips(Track $track, Curve $lane, bool $ducking): Track
    {
        if ($lane->isFlat()) {
            return $track;
        }
        $clips = [];
        foreach ($track->clips as $clip) {
            if (!$ducking || $clip->ducked) {
                $under = $lane->within($clip->at, $clip->end())->shifted($clip->in - $clip->at);
                $clips[] = $clip->withCurve(Simplest::of(Sum::of($clip->curve, $under, $clip->heard()), self::TOLERANCE));
            }
        }

        return $track->withClip(...$clips);
    }

    private function intoLevels(Track $track, Curve $added, Mix $mix): Track
    {
        return $added->isFlat() ? $track : $track->withLanes($track->lanes->withLevel(Simplest::of(Sum::of($track->levels(), $added, Span::of(0, max(1, $mix->length()))), self::TOLERANCE)));
    }

    /** The curves of clips one after the other; between them 0 dB. */
    private static function ofClips(Track $track): Curve
    {
        $keyframes = [];
        $end = 0;
        foreach ($track->inOrder() as $clip) {
            $clip->at >= $end || throw InvalidEdit::clipsOverlap($track->name);
            $end = $clip->end();
            $curve = $clip->curve->within($clip->in, $clip->in + $clip->length);
            if ($curve->isFlat()) {
                continue;
            }
            $shifted = $curve->withKeyframeAt($clip->in)->withKeyframeAt($clip->in + $clip->length - 1)->shifted($clip->at - $clip->in)->within($clip->at, $end - 1);
            if ($clip->at > 0 && ([] === $keyframes || $keyframes[\count($keyframes) - 1]->position < $clip->at - 1)) {
                $keyframes[] = new Keyframe($clip->at - 1, Decibels::unchanged(), Ramp::hold());
            }
            array_push($keyframes, ...$shifted->keyframes);
            $keyframes[] = new Keyframe($end, Decibels::unchanged(), Ramp::hold());
        }
        $rising = [];
        foreach ($keyframes as $keyframe) {
            $rising[$keyframe->position] = $keyframe;
        }
        ksort($rising);

        return Curve::of(array_values($rising));
    }
}
