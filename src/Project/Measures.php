<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Closure;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Media\MediaStore;
use Wattage\Core\Loudness\SourceTenths;

/** What the sources of a project were measured at; each is read once. */
final readonly class Measures
{
    public function __construct(private EntityManagerInterface $entities, private MediaStore $store)
    {
    }

    /** @return Closure(string): ?SourceTenths by the id that the mix calls a source by */
    public function tenthsOf(Project $project): Closure
    {
        $known = [];

        return function (string $id) use ($project, &$known): ?SourceTenths {
            if (!\array_key_exists($id, $known)) {
                $source = $this->source($project, $id);
                $known[$id] = null === $source ? null : $this->store->tenths($source);
            }

            return $known[$id];
        };
    }

    public function source(Project $project, string $id): ?Source
    {
        return Uuid::isValid($id) ? $this->entities->getRepository(Source::class)->findOneBy(['id' => $id, 'project' => $project]) : null;
    }
}
