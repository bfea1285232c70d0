<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Timeline\Mix;

/** Readers of edits that know the sources which an edit may place. */
final readonly class EditReaders
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @throws NotPlaceable */
    public function of(Project $project, Mix $mix, mixed $json): EditReader
    {
        return new EditReader($mix, $this->placeable($project, $mix, $json));
    }

    /**
     * @return array<string, \Wattage\Core\Timeline\Source> the sources that an edit names, where they are ones of the project
     *
     * @throws NotPlaceable
     */
    private function placeable(Project $project, Mix $mix, mixed $json): array
    {
        $ids = [];
        \is_array($json) && array_walk_recursive($json, static function (mixed $value, string|int $name) use (&$ids): void {
            'source' === $name && \is_string($value) && Uuid::isValid($value) && $ids[$value] = true;
        });
        $sources = [];
        foreach ([] === $ids ? [] : $this->entities->getRepository(Source::class)->findBy(['id' => array_keys($ids), 'project' => $project]) as $found) {
            $sources[(string) $found->id] = $mix->sources[(string) $found->id] ?? $found->toMixSource() ?? throw NotPlaceable::of($found);
        }

        return $sources;
    }
}
