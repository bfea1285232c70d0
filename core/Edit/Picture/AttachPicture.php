<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Picture;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** Brings the picture back to the sound of clips; it goes from where it stood by itself. */
final readonly class AttachPicture implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips)
    {
    }

    public function label(Mix $before): string
    {
        return 'Attach the picture of '.Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        foreach ($this->clips as $id) {
            $clip = $before->clip($id);
            if (!$clip->detached) {
                continue;
            }
            foreach ($before->pictures as $picture) {
                if ($picture->source === $clip->source && Span::of($picture->in, $picture->in + $picture->length)->meets($clip->heard())) {
                    $before = $before->withoutPicture($picture->id);
                }
            }
            $before = $before->withClip($clip->withDetached(false));
        }

        return $before;
    }
}
