<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\JobKind;
use Wattage\App\Entity\JobState;
use Wattage\App\Entity\PictureState;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\App\Entity\User;
use Wattage\App\Job\Progress;
use Wattage\App\Media\Ingest;
use Wattage\App\Media\Spool;
use Wattage\App\Project\History;
use Wattage\App\Project\Pictures;
use Wattage\Core\Interchange\MixDocument;

#[AsCommand('wattage:demo', 'Loads the demo project, The Salt Ferry, for an account; does nothing when it is there already.')]
final class DemoCommand extends Command
{
    private const NAME = 'The Salt Ferry';

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Connection $database,
        private readonly Ingest $ingest,
        private readonly Spool $spool,
        private readonly History $history,
        private readonly Pictures $pictures,
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
            $this->history->begin($project, $owner, MixDocument::fromArray($this->withOwnSources($project)));
            $this->entities->flush();
            foreach ((array) $this->read('edits.json') as $edit) {
                $this->history->edit($project, $owner, $project->head, $edit);
            }
        });
        foreach ($this->entities->getRepository(Source::class)->findBy(['project' => $project]) as $source) {
            $this->pictures->request($source);
        }

        return self::SUCCESS;
    }

    /**
     * Brings the media in as any upload would be, and puts the ids they get into the mix.
     *
     * @return array<string, mixed>
     */
    private function withOwnSources(Project $project): array
    {
        /** @var array{sources: list<array<string, mixed>>, tracks: list<array{clips: list<array{source: string}>}>} $document */
        $document = $this->read('salt-ferry.json');
        $ids = [];
        foreach ($document['sources'] as $i => $entry) {
            /** @var array{id: string, file: string} $entry */
            $source = $this->bringIn($project, $entry['file']);
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

    private function bringIn(Project $project, string $file): Source
    {
        $path = "{$this->directory}/media/{$file}";
        $source = new Source($project, $file, (int) filesize($path));
        $source->received = $source->size;
        $source->state = SourceState::Analysing;
        $source->job = $job = new Job(JobKind::Ingest);
        $this->entities->persist($job);
        $this->entities->persist($source);
        $this->entities->flush();
        copy($path, $this->spool->upload($source->id));
        $this->ingest->run($source, $job, new Progress($this->database, $job));
        $job->state = JobState::Done;
        $this->entities->flush();

        return $source;
    }

    private function read(string $file): mixed
    {
        return json_decode((string) file_get_contents("{$this->directory}/{$file}"), true, flags: \JSON_THROW_ON_ERROR);
    }
}
