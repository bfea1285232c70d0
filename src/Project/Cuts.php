<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\Core\Cut\InvalidCut;
use Wattage\Core\Cut\Laid;
use Wattage\Core\Cut\OtioReader;
use Wattage\Core\Cut\OtioWriter;
use Wattage\Core\Timeline\Mix;

/** Cuts in and out: what of one that was made elsewhere can be laid with the sources of a project, and the mix as one for others. */
final readonly class Cuts
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * @return array<string, mixed>
     *
     * @throws InvalidCut
     */
    public function look(Project $project, Mix $mix, string $text): array
    {
        $cut = OtioReader::read($text, $mix->rate);
        $sources = [];
        foreach ($this->entities->getRepository(Source::class)->findBy(['project' => $project, 'state' => SourceState::Ready], ['name' => 'ASC', 'id' => 'ASC']) as $source) {
            $placeable = $mix->sources[(string) $source->id] ?? $source->toMixSource();
            null === $placeable || $sources[] = [$source->name, $placeable];
        }
        $laid = Laid::of($cut, $sources, $mix, 'cut-'.substr(Uuid::v4()->toBase58(), 0, 10));

        return [
            'name' => $cut->name,
            'tracks' => \count($cut->tracks),
            'clips' => $cut->clips(),
            'found' => $laid->found,
            'missing' => array_map(static fn (array $one): array => [...$one, 'seconds' => round($one['seconds'], 1)], $laid->missing),
            'short' => $laid->short,
            'left' => $cut->left,
            'edit' => $laid->edit,
        ];
    }

    /** The mix as a cut for other programs. */
    public function otio(Project $project, Mix $mix): string
    {
        $files = [];
        foreach ($this->entities->getRepository(Source::class)->findBy(['project' => $project]) as $source) {
            $files[(string) $source->id] = $source->name;
        }

        return OtioWriter::write($mix, $project->name, $files);
    }
}
