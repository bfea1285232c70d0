<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Speech;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Held;
use Wattage\Core\Timeline\Mix;

/** Keeps a rule, or lets one go, together with the lanes that come of it; \Wattage\Core\Ducking\Ducker works them out. */
final readonly class Duck implements Edit
{
    /**
     * @param ?DuckRule $rule kept, new or in place of the one with its id
     * @param ?string $without id of a rule that goes
     * @param array<string, Curve> $lanes by track; what is held in them stays held
     * @param array<string, Curve> $bands the same of the band of speech
     */
    public function __construct(private ?DuckRule $rule, private ?string $without, private array $lanes, private array $bands = [])
    {
    }

    public function label(Mix $before): string
    {
        return match (true) {
            null !== $this->rule => "Duck: {$this->rule->name}",
            null !== $this->without => 'Remove rule '.$before->rule($this->without)->name,
            default => 'Bring ducking up to date',
        };
    }

    public function apply(Mix $before): Mix
    {
        $after = null === $this->rule || $this->rule == ($before->rules[$this->rule->id] ?? null) ? $before : $before->withRule($this->rule);
        $after = null === $this->without ? $after : $after->withoutRule($this->without);
        foreach ([$this->lanes, $this->bands] as $band => $lanes) {
            foreach ($lanes as $id => $curve) {
                $track = $after->track((string) $id);
                $ducking = Held::following($after, $track->givingWay(1 === $band));
                $new = $ducking->holding($curve, $ducking->held);
                $after = $new == $track->givingWay(1 === $band) ? $after : $after->withTrack($track->withGivingWay(1 === $band, $new));
            }
        }

        return $after;
    }
}
