<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Fade\FadeShape;
use Wattage\Core\Fade\InvalidFade;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Sets the fade in or the fade out of clips; length 0 removes it. */
final readonly class SetFade implements Edit
{
    /**
     * @param non-empty-list<string> $clips
     * @param int $length samples
     * @param ?FadeShape $shape null keeps the one it has
     */
    public function __construct(private array $clips, private FadeEdge $edge, private int $length, private ?FadeShape $shape = null)
    {
    }

    public function label(Mix $before): string
    {
        $name = Naming::clips($before, $this->clips);
        if (0 === $this->length && null === $this->shape) {
            return "No fade {$this->edge->value} for {$name}";
        }
        $shape = null === $this->shape ? '' : ", {$this->shape->label()}";

        return "Fade {$this->edge->value} {$name} over ".Naming::seconds($before, $this->length).$shape;
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips($this->clips, function (Clip $clip) use ($before): Clip {
            $this->length <= $clip->length || throw InvalidFade::tooLong($clip->name, $clip->length / $before->rate);

            return $this->faded($clip, $before->rate);
        });
    }

    private function faded(Clip $clip, int $rate): Clip
    {
        $own = FadeEdge::In === $this->edge ? $clip->fadeIn : $clip->fadeOut;
        $other = FadeEdge::In === $this->edge ? $clip->fadeOut : $clip->fadeIn;
        $this->length + $other->length <= $clip->length || throw InvalidFade::meet($clip->name, ($clip->length - $other->length) / $rate);
        $fade = Fade::of($this->length, $this->shape ?? $own->shape);

        return FadeEdge::In === $this->edge ? $clip->withFades($fade, $other) : $clip->withFades($other, $fade);
    }
}
