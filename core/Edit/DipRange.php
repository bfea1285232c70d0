<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Curve\RangeChange;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** Lowers or lifts a range of clips by a difference, with ramps. */
final readonly class DipRange implements Edit
{
    /**
     * @param non-empty-list<string> $clips those that the range does not touch are left alone
     * @param Span $range timeline samples
     * @param Decibels $by finite
     * @param int $ramp samples
     */
    public function __construct(private array $clips, private Span $range, private Decibels $by, private int $ramp, private bool $inside)
    {
    }

    public function label(Mix $before): string
    {
        $verb = $this->by->db < 0 ? 'Dip' : 'Lift';

        return \sprintf('%s %s by %s dB, %s', $verb, Naming::clips($before, $this->clips), rtrim(rtrim(\sprintf('%.1f', abs($this->by->db)), '0'), '.'), Naming::span($before, $this->range));
    }

    public function apply(Mix $before): Mix
    {
        $change = new RangeChange($this->by->db, $this->ramp, $this->inside);
        $touched = false;
        $after = $before;
        foreach (array_unique($this->clips) as $id) {
            $clip = $before->clip($id);
            if ($clip->span()->meets($this->range)) {
                $touched = true;
                $curve = $change->of($clip->curve, $this->range->shifted($clip->in - $clip->at), $clip->heard());
                $after = $curve === $clip->curve ? $after : $after->withClip($clip->withCurve($curve));
            }
        }

        return $touched ? $after : throw InvalidEdit::notOverAnyClip();
    }
}
