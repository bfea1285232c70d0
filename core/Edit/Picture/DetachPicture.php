<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Picture;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\FreshIds;
use Wattage\Core\Timeline\InvalidMix;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Picture;

/** Lets the picture of clips stand by itself, so that the sound can be moved, cut or removed without it. */
final readonly class DetachPicture implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips)
    {
    }

    public function label(Mix $before): string
    {
        return 'Detach the picture of '.Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        $ids = new FreshIds($before);
        foreach ($this->clips as $id) {
            $clip = $before->clip($id);
            $before->source($clip->source)->picture || throw InvalidMix::noPicture($clip->name)->about('clips');
            if (!$clip->detached) {
                $before = $before->withClip($clip->withDetached(true))->withPicture(new Picture($ids->after($clip->id), $clip->source, $clip->at, $clip->in, $clip->length));
            }
        }

        return $before;
    }
}
