<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

/** An edit after which another state stands in place of the whole: what was locked in the one before does not bind it. */
interface WholeMix extends Edit
{
}
