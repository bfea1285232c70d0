<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

/** What of an object was asked for while it was read. */
final class AskedFields
{
    /** @var array<array-key, true> */
    public array $names = [];

    /** @var list<Fields> objects in it that were read */
    public array $within = [];
}
