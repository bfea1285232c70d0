<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Channels;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Puts parts of the levels of clips back to how they came in. */
final readonly class ResetClips implements Edit
{
    /**
     * @param non-empty-list<string> $clips
     * @param non-empty-list<ResetPart> $parts
     */
    public function __construct(private array $clips, private array $parts)
    {
    }

    public function label(Mix $before): string
    {
        $what = \count($this->parts) === \count(ResetPart::cases()) ? 'all levels' : implode(', ', array_column($this->parts, 'value'));

        return "Reset {$what} of ".Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips($this->clips, fn (Clip $clip): Clip => array_reduce($this->parts, $this->without(...), $clip));
    }

    private function without(Clip $clip, ResetPart $part): Clip
    {
        return match ($part) {
            ResetPart::Gain => $clip->withGain(Decibels::unchanged()),
            ResetPart::Curve => $clip->withCurve(Curve::flat()),
            ResetPart::Fades => $clip->withFades(Fade::none(), Fade::none()),
            ResetPart::Channels => $clip->withChannels(Channels::usual()),
        };
    }
}
