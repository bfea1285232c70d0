<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Speech;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Leaves clips out of what ducks others, or of what gives way; or takes them in again. */
final readonly class SetPartInDucking implements Edit
{
    /**
     * @param non-empty-list<string> $clips
     * @param ?bool $triggers null leaves it
     * @param ?bool $ducked null leaves it
     */
    public function __construct(private array $clips, private ?bool $triggers, private ?bool $ducked)
    {
    }

    public function label(Mix $before): string
    {
        $said = array_filter([
            null === $this->triggers ? null : ($this->triggers ? 'ducks others again' : 'ducks nothing'),
            null === $this->ducked ? null : ($this->ducked ? 'gives way again' : 'does not give way'),
        ]);

        return Naming::clips($before, $this->clips).' '.implode(', ', $said);
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips($this->clips, fn (Clip $clip): Clip => $clip->withPartInDucking($this->triggers, $this->ducked));
    }
}
