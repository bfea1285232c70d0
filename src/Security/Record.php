<?php

declare(strict_types=1);

namespace Wattage\App\Security;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\User;

/** Who signed in, shared and deleted, when and from where, for the owners of a project to read. Nothing in it is ever changed. */
final readonly class Record
{
    public const SIGNED_IN = 'signed in';
    private const SHOWN = 500;

    public function __construct(private Connection $database, private RequestStack $requests)
    {
    }

    /** Something about an account. */
    public function ofAccount(User $who, string $what): void
    {
        $this->write(null, $who, $what);
    }

    /** @param string $what as it goes on after the name: "made Nora an editor" */
    public function ofProject(Project $project, User $who, string $what): void
    {
        $this->write($project, $who, $what);
    }

    /**
     * What happened to a project, and what its present members did about their accounts; newest first.
     *
     * @return list<array{at: string, who: string, what: string, address: string}>
     */
    public function about(Project $project): array
    {
        /** @var list<array{at: string, who: string, what: string, address: string}> $entries */
        $entries = $this->database->fetchAllAssociative(
            "SELECT to_char(r.at AT TIME ZONE 'UTC', 'YYYY-MM-DD\"T\"HH24:MI:SS\"Z\"') AS at, r.who, r.what, r.address FROM record_entry r
             WHERE r.project_id = :project OR (r.project_id IS NULL AND r.account_id IN (SELECT user_id FROM membership WHERE project_id = :project))
             ORDER BY r.at DESC, r.id DESC LIMIT :shown",
            ['project' => (string) $project->id, 'shown' => self::SHOWN],
        );

        return $entries;
    }

    private function write(?Project $project, User $who, string $what): void
    {
        $this->database->executeStatement('INSERT INTO record_entry (id, at, project_id, account_id, who, what, address) VALUES (?, now(), ?, ?, ?, ?, ?)', [
            (string) Uuid::v7(), null === $project ? null : (string) $project->id, (string) $who->id, mb_strimwidth("{$who->name} ({$who->email})", 0, 400, '…'),
            mb_strimwidth($what, 0, 600, '…'), (string) $this->requests->getMainRequest()?->getClientIp(),
        ]);
    }
}
