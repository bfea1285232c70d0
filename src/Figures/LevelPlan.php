<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Wattage\Core\Timeline\Mix;

/** What levelling clips would do. */
final readonly class LevelPlan
{
    /**
     * @param list<array<string, mixed>> $rows what becomes of each clip
     * @param ?array<string, mixed> $edit null where nothing would change
     * @param list<string> $clips those that it changes
     * @param Mix $after with it done
     */
    public function __construct(public array $rows, public ?array $edit, public array $clips, public Mix $after)
    {
    }

    /** @param list<array<string, mixed>> $rows */
    public static function ofNothing(Mix $mix, array $rows): self
    {
        return new self($rows, null, [], $mix);
    }
}
