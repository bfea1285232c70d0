<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Time\Span;

/** A state of a mix with all that was worked out of it. */
final readonly class MeasuredMix
{
    /**
     * @param array<string, string> $states by track: all that its loudness depends on
     * @param list<Span> $speech when somebody speaks
     */
    public function __construct(public MixFigures $figures, public array $states, public array $speech, public Clearance $clearance)
    {
    }
}
