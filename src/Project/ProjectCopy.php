<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Wattage\App\Entity\PictureState;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\App\Entity\User;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Interchange\SourceIds;
use Wattage\Core\Timeline\Name;

/** Another project that begins as this one is now. Its recordings sound from the same files; its history is its own. */
final readonly class ProjectCopy
{
    public function __construct(private EntityManagerInterface $entities, private History $history, private Revisions $revisions, private Pictures $pictures)
    {
    }

    public function of(Project $project, User $owner, string $name): Project
    {
        return $this->entities->wrapInTransaction(function () use ($project, $owner, $name): Project {
            // Whoever removes one of its recordings at this moment is waited for, so that no file goes that the copy will need.
            $this->entities->refresh($project, LockMode::PESSIMISTIC_WRITE);
            $copy = new Project(Name::check($name), $owner);
            $this->entities->persist($copy);
            $ids = [];
            foreach ($this->entities->getRepository(Source::class)->findBy(['project' => $project, 'state' => SourceState::Ready]) as $source) {
                $new = $source->copiedTo($copy);
                $this->entities->persist($new);
                $ids[(string) $source->id] = (string) $new->id;
                PictureState::Making === $source->picture && $this->pictures->request($new);
            }
            $document = $this->revisions->document($this->history->head($project));
            $this->history->begin($copy, $owner, MixDocument::decode(SourceIds::replaced($document, $ids)));

            return $copy;
        });
    }
}
