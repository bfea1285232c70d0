<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Doctrine\ORM\EntityManagerInterface;
use Wattage\App\Entity\User;
use Wattage\Core\Handover\Target;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Name;

/** Targets that somebody keeps by name, beside the usual ones. */
final readonly class OwnTargets
{
    private const MOST = 50;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * All of them anew, in the order in which they are shown; of two with one name the later counts.
     *
     * @throws Problem
     */
    public function keep(User $user, Fields $fields): void
    {
        $fields->onlyHave('targets');
        $targets = [];
        foreach ($fields->objects('targets', self::MOST) as $one) {
            $one->onlyHave('name', 'loudness', 'truePeak');
            $name = Name::check(mb_substr($one->string('name'), 0, 80));
            // A target says what is wrong with it in its own words.
            $target = Target::of($one->float('loudness', -1000.0, 1000.0), $one->float('truePeak', -1000.0, 1000.0));
            unset($targets[$name]);
            $targets[$name] = ['name' => $name, 'loudness' => (float) $target->loudness, 'truePeak' => (float) $target->truePeak];
        }
        $user->targets = array_values($targets);
        $this->entities->flush();
    }
}
