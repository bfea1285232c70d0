<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use LogicException;
use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Revision;
use Wattage\App\Entity\User;
use Wattage\Core\Interchange\MixDifference;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Timeline\Mix;

/**
 * How the states of a mix are stored: the whole now and then, between them what differs from the state before. A whole one is due when the differences
 * since the last weigh as much as it does; so all whole states together never weigh more than all differences, whatever is in them, and reading
 * a state never costs more than reading two whole ones.
 */
final class Revisions
{
    /** What a row costs beside what is in it, bytes. */
    private const ROW = 200;
    private const LEAST_WHOLE = 16_000;
    private const REMEMBERED_SECONDS = 7 * 86_400;

    /** @var array<string, Mix> by revision: one request asks for the same state several times */
    private array $known = [];

    /** @var array<string, string> by revision, mix JSON of those made here: each is written out once */
    private array $written = [];

    public function __construct(private readonly EntityManagerInterface $entities, private readonly Connection $database, private readonly CacheItemPoolInterface $pool)
    {
    }

    /** @throws NotFoundHttpException */
    public function numbered(Project $project, int $number): Revision
    {
        return $this->entities->getRepository(Revision::class)->findOneBy(['project' => $project, 'number' => $number])
            ?? throw new NotFoundHttpException('This revision does not exist.');
    }

    public function mix(Revision $revision): Mix
    {
        return $this->known[(string) $revision->id] ??= MixDocument::fromArray($this->parsed($revision));
    }

    /** The state as mix JSON. */
    public function document(Revision $revision): string
    {
        return $revision->mix ?? $this->newest($revision) ?? MixDocument::json($this->rebuilt($revision));
    }

    public function first(Project $project, User $author, Mix $mix): Revision
    {
        return new Revision($project, 1, null, 'New project', $author, MixDocument::encode($mix));
    }

    /** The next revision of a project, not persisted yet. */
    public function next(Project $project, Revision $parent, string $label, User $author, Mix $after): Revision
    {
        $difference = MixDifference::between($this->mix($parent), $after);
        $since = $parent->sinceWhole + \strlen($difference) + self::ROW;
        $document = MixDocument::encode($after);
        $whole = $since > self::LEAST_WHOLE && $since > \strlen($document) ? $document : null;
        $label = mb_strimwidth($label, 0, 400, '…');
        $next = new Revision($project, ++$project->lastRevision, $parent->number, $label, $author, $whole, null === $whole ? $difference : null, null === $whole ? $since : 0);
        $this->known[(string) $next->id] = $after;
        $this->written[(string) $next->id] = $document;

        return $next;
    }

    /** Keeps the newest state at hand, once it is stored for good: the next edit is made on it. */
    public function remember(Revision $revision): void
    {
        if (null === $revision->mix) {
            $id = (string) $revision->id;
            $item = $this->pool->getItem("newest-state-{$revision->project->id}");
            $this->pool->save($item->set([$id, $this->written[$id] ?? MixDocument::encode($this->mix($revision))])->expiresAfter(self::REMEMBERED_SECONDS));
        }
    }

    /** Mix JSON, taken apart. */
    private function parsed(Revision $revision): mixed
    {
        $document = $revision->mix ?? $this->newest($revision);

        return null === $document ? $this->rebuilt($revision) : MixDocument::parsed($document);
    }

    private function newest(Revision $revision): ?string
    {
        /** @var ?array{string, string} $known */
        $known = $this->pool->getItem("newest-state-{$revision->project->id}")->get();

        return null !== $known && $known[0] === (string) $revision->id ? $known[1] : null;
    }

    private function rebuilt(Revision $revision): mixed
    {
        /** @var list<array{mix: ?string, difference: ?string}> $rows */
        $rows = $this->database->fetchAllAssociative(
            'WITH RECURSIVE line AS (
                SELECT number, parent, mix, difference FROM revision WHERE project_id = :project AND number = :number
                UNION ALL
                SELECT r.number, r.parent, r.mix, r.difference FROM revision r JOIN line ON r.project_id = :project AND r.number = line.parent WHERE line.mix IS NULL
            )
            SELECT mix, difference FROM line ORDER BY number',
            ['project' => (string) $revision->project->id, 'number' => $revision->number],
        );
        $whole = array_shift($rows)['mix'] ?? throw new LogicException("Revision {$revision->number} has no whole state before it.");

        return MixDifference::applied($whole, array_map(static fn (array $row): string => (string) $row['difference'], $rows));
    }
}
