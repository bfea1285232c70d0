<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use LogicException;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Wattage\App\Entity\JobState;
use Wattage\App\Entity\PictureState;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\User;
use Wattage\App\Job\Queue;
use Wattage\App\Media\Uploads;
use Wattage\App\Project\History;
use Wattage\App\Project\Sources;
use Wattage\App\Work\IngestJob;
use Wattage\Core\Interchange\MixDocument;

#[AsCommand('wattage:demo', 'Loads the demo project, The Salt Ferry, for an account; does nothing when it is there already.')]
final class DemoCommand extends Command
{
    private const NAME = 'The Salt Ferry';
    private const PIECE = 8 << 20;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Connection $database,
        private readonly Sources $sources,
        private readonly Uploads $uploads,
        private readonly Queue $queue,
        private readonly IngestJob $ingest,
        private readonly History $history,
        #[Autowire('%kernel.project_dir%/demo')]
        private readonly string $directory,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('email', InputArgument::REQUIRED);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $owner = $this->entities->getRepository(User::class)->findOneBy(['email' => $input->getArgument('email')]);
        if (null === $owner) {
            $output->writeln('There is no such account. Create it with wattage:user.');

            return self::FAILURE;
        }
        if (false !== $this->database->fetchOne('SELECT 1 FROM project JOIN membership ON project_id = project.id WHERE user_id = ? AND project.name = ?', [(string) $owner->id, self::NAME])) {
            return self::SUCCESS;
        }
        $output->writeln('Loading the demo project');
        // All or nothing: a try that broke off leaves no half project to stumble over.
        $project = new Project(self::NAME, $owner);
        $this->entities->wrapInTransaction(function () use ($owner, $project): void {
            $this->entities->persist($project);
            $this->history->begin($project, $owner, MixDocument::fromArray($this->withOwnSources($project, $owner)));
            $this->entities->flush();
            foreach ((array) $this->read('edits.json') as $edit) {
                $this->history->edit($project, $owner, $project->head, $edit);
            }
        });

        return self::SUCCESS;
    }

    /**
     * Brings the media in as any upload would be, and puts the ids they get into the mix.
     *
     * @return array<string, mixed>
     */
    private function withOwnSources(Project $project, User $owner): array
    {
        /** @var array{sources: list<array<string, mixed>>, tracks: list<array{clips: list<array{source: string}>}>} $document */
        $document = $this->read('salt-ferry.json');
        $ids = [];
        foreach ($document['sources'] as $i => $entry) {
            /** @var array{id: string, file: string} $entry */
            $source = $this->bringIn($project, $owner, $entry['file']);
            $ids[$entry['id']] = (string) $source->id;
            unset($entry['file']);
            $document['sources'][$i] = [...$entry, 'id' => $ids[$entry['id']], 'picture' => PictureState::None !== $source->picture];
        }
        foreach ($document['tracks'] as $t => $track) {
            foreach ($track['clips'] as $c => $clip) {
                $document['tracks'][$t]['clips'][$c]['source'] = $ids[$clip['source']];
            }
        }

        return $document;
    }

    private function bringIn(Project $project, User $owner, string $file): Source
    {
        $path = "{$this->directory}/media/{$file}";
        $source = $this->sources->announce($project, $file, (int) filesize($path));
        foreach (str_split((string) file_get_contents($path), self::PIECE) as $i => $piece) {
            $this->sources->receive($source, $owner, $i * self::PIECE, $piece);
        }
        $job = $source->job ?? throw new LogicException('A source that is whole has a job.');
        $lease = $this->queue->claim($job);
        $makeVisible = $this->ingest->run($job, $lease);
        $makeVisible();
        $this->entities->flush();
        $lease->end(JobState::Done);
        $this->uploads->clear($source->id);

        return $source;
    }

    private function read(string $file): mixed
    {
        return json_decode((string) file_get_contents("{$this->directory}/{$file}"), true, flags: \JSON_THROW_ON_ERROR);
    }
}
