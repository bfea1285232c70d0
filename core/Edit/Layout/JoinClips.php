<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Effort;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** Joins clips that follow one another on a track and in their source; together they sound as before. */
final readonly class JoinClips implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips)
    {
    }

    public function label(Mix $before): string
    {
        return 'Join '.Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        $ids = array_values(array_unique($this->clips));
        $track = $before->trackOf($ids[0]);
        foreach ($ids as $id) {
            isset($track->clips[$id]) || throw InvalidEdit::joinAcrossTracks();
        }
        $wanted = array_fill_keys($ids, true);
        $clips = array_values(array_filter($track->inOrder(), static fn (Clip $clip): bool => isset($wanted[$clip->id])));
        \count($clips) > 1 || throw InvalidEdit::nothingToJoin();
        Effort::affordable(\count($clips) * array_sum(array_map(static fn (Clip $clip): int => \count($clip->curve->keyframes), $clips)), 'clips');
        $joined = $clips[0];
        foreach (\array_slice($clips, 1) as $next) {
            $joined = $this->joined($joined, $next);
        }

        return $before->withTrack($track->withoutClip(...$ids)->withClip($joined));
    }

    private function joined(Clip $a, Clip $b): Clip
    {
        $a->source === $b->source || throw InvalidEdit::joinOfOtherSource($a->name, $b->name);
        $a->end() === $b->at && $a->in + $a->length === $b->in || throw InvalidEdit::joinWithGap($a->name, $b->name);
        $a->colour == $b->colour || throw InvalidEdit::joinOfOtherColour($a->name, $b->name);
        $a->channels == $b->channels || throw InvalidEdit::joinOfOtherChannels($a->name, $b->name);
        $a->gain->isSilence() !== $b->gain->isSilence() && throw InvalidEdit::joinWithSilence($a->name, $b->name);
        $by = $a->gain->isSilence() ? 0.0 : $b->gain->db - $a->gain->db;
        $curve = 0.0 === $by && $a->curve == $b->curve ? $a->curve : $this->joinedCurve($a->curve, $b->curve, $b->in, $by);

        return $a->trimmedTo(Span::of($a->at, $b->end()))
            ->withCurve($curve)
            ->withFades($a->fadeIn->goesOnIn($b->fadeIn) ? $a->fadeIn->joinedWith($b->fadeIn) : $a->fadeIn, $b->fadeOut->goesOnIn($a->fadeOut) ? $b->fadeOut->joinedWith($a->fadeOut) : $b->fadeOut);
    }

    /** The first curve up to the joint, and the second, raised by the difference of the gains, from there on. */
    private function joinedCurve(Curve $a, Curve $b, int $joint, float $by): Curve
    {
        $first = $a->withKeyframeAt($joint - 1)->before($joint);
        $last = \count($first) - 1;
        $first[$last] = $first[$last]->withRamp(Ramp::hold());
        $second = [];
        foreach ($b->withKeyframeAt($joint)->from($joint) as $keyframe) {
            $second[] = $keyframe->withLevel($keyframe->level->plus(Decibels::of($by)));
        }

        return Curve::of([...$first, ...$second]);
    }
}
