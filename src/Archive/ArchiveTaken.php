<?php

declare(strict_types=1);

namespace Wattage\App\Archive;

use Doctrine\ORM\EntityManagerInterface;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Snapshot;
use Wattage\App\Entity\User;
use Wattage\App\Media\Refused;
use Wattage\App\Project\Cuts;
use Wattage\App\Project\History;
use Wattage\Core\Cut\OtioReader;
use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Interchange\SourceIds;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Name;
use Wattage\Core\Timeline\Source as MixSource;

/** Once the sources of an archive are here: its mix and snapshots become those of the project, a cut is laid. Each is an edit that can be undone. */
final readonly class ArchiveTaken
{
    public function __construct(private EntityManagerInterface $entities, private History $history, private Cuts $cuts)
    {
    }

    /** Only where nothing would have to give way. */
    public function fits(Project $project, Contents $contents): bool
    {
        return null === $contents->mix || [] === $this->history->mix($project)->tracks;
    }

    /**
     * Before any of it is to be seen: whether its mixes go with its sources.
     *
     * @param array<string, string> $ids of sources here, by those in the archive
     * @param array<string, MixSource> $sources by their ids here
     *
     * @throws Refused
     */
    public function check(Contents $contents, array $ids, array $sources): void
    {
        try {
            foreach ([...array_column($contents->snapshots, 1), ...(null === $contents->mix ? [] : [$contents->mix])] as $mix) {
                Change::by((new EditReader(Mix::empty(), $sources))->read(self::edit($contents->name, $mix, $ids)), Mix::empty());
            }
            null === $contents->cut || OtioReader::read($contents->cut, Mix::DEFAULT_RATE);
        } catch (Problem $problem) {
            throw Refused::archive($contents->name, 'its mix is damaged ('.rtrim($problem->getMessage(), '.').')');
        }
    }

    /** @param array<string, string> $ids of sources here, by those in the archive */
    public function take(Project $project, User $by, Contents $contents, array $ids): void
    {
        $this->entities->flush();
        foreach ($contents->snapshots as [$name, $mix]) {
            $this->history->edit($project, $by, $project->head, self::edit($name, $mix, $ids));
            $this->entities->persist(new Snapshot($project, $project->head, Name::check($name), $by));
        }
        null === $contents->mix || $this->history->edit($project, $by, $project->head, self::edit($contents->name, $contents->mix, $ids));
        if (null !== $contents->cut) {
            $edit = $this->cuts->look($project, $this->history->mix($project), $contents->cut)['edit'];
            null === $edit || $this->history->edit($project, $by, $project->head, $edit);
        }
    }

    /**
     * @param string $mix JSON
     * @param array<string, string> $ids
     *
     * @return array<string, mixed>
     */
    private static function edit(string $name, string $mix, array $ids): array
    {
        return ['edit' => 'take-mix', 'name' => Name::check($name), 'mix' => MixDocument::parsed(SourceIds::replaced($mix, $ids))];
    }
}
