<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

/** How far the small picture of a source is. */
enum PictureState: string
{
    /** The file holds no picture. */
    case None = 'none';
    /** A worker makes it, or soon will. */
    case Making = 'making';
    case Ready = 'ready';
    /** It could not be made; the sound is not touched by that. */
    case Failed = 'failed';
}
