<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Picture;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;

/** Moves a picture that stands by itself. */
final readonly class MovePicture implements Edit
{
    /** @param int $at timeline samples */
    public function __construct(private string $picture, private int $at)
    {
    }

    public function label(Mix $before): string
    {
        return "Move the picture of {$before->source($before->picture($this->picture)->source)->name} to ".Timecode::clock($this->at, $before->rate);
    }

    public function apply(Mix $before): Mix
    {
        $picture = $before->picture($this->picture);

        return $picture->at === $this->at ? $before : $before->withPicture($picture->movedTo($this->at));
    }
}
