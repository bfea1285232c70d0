<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\User;

/** Who has a project open, and what they hold. Every open screen says all the time that it is there. */
final readonly class Presence
{
    /** Seconds after which a screen that says nothing any more is gone; a hidden one speaks every 8 s. */
    private const GONE_AFTER = 20;
    /** Seconds within which a screen that has nothing new to say is not written down again. */
    private const FRESH = 4;

    public function __construct(private Connection $database)
    {
    }

    /** @param ?string $holds kind and id of what a hand is on, as clip:… or fader:… */
    public function seen(Project $project, User $user, Uuid $screen, ?string $holds): void
    {
        $this->database->executeStatement(
            'INSERT INTO presence (project_id, screen, account_id, holds, seen_at) VALUES (?, ?, ?, ?, now())
             ON CONFLICT (project_id, screen) DO UPDATE SET holds = excluded.holds, seen_at = now()
             WHERE presence.account_id = excluded.account_id AND (presence.holds IS DISTINCT FROM excluded.holds OR presence.seen_at < now() - make_interval(secs => ?))',
            [(string) $project->id, (string) $screen, (string) $user->id, $holds, self::FRESH],
        );
    }

    public function gone(Project $project, User $user, Uuid $screen): void
    {
        $this->database->executeStatement('DELETE FROM presence WHERE project_id = ? AND screen = ? AND account_id = ?', [(string) $project->id, (string) $screen, (string) $user->id]);
    }

    /** Forgets screens that went without a word. */
    public function tidy(Project $project): void
    {
        $this->database->executeStatement('DELETE FROM presence WHERE project_id = ? AND seen_at < now() - make_interval(secs => ?)', [(string) $project->id, self::GONE_AFTER]);
    }

    /** @return list<array{screen: string, account: string, name: string, holds: ?string}> all other screens on the project, of members */
    public function others(Project $project, Uuid $screen): array
    {
        /** @var list<array{screen: string, account: string, name: string, holds: ?string}> $rows */
        $rows = $this->database->fetchAllAssociative(
            'SELECT p.screen, p.account_id AS account, a.name, p.holds FROM presence p
             JOIN account a ON a.id = p.account_id JOIN membership m ON m.project_id = p.project_id AND m.user_id = p.account_id
             WHERE p.project_id = ? AND p.screen <> ? AND p.seen_at > now() - make_interval(secs => ?) ORDER BY a.name, p.screen LIMIT 100',
            [(string) $project->id, (string) $screen, self::GONE_AFTER],
        );

        return $rows;
    }

    /** Another text as soon as recordings, snapshots or deliveries came, went, or are ready: then screens ask for these lists again. */
    public function stamp(Project $project): string
    {
        $stamp = $this->database->fetchOne(
            "SELECT concat_ws('-', (SELECT count(*) FROM source WHERE project_id = :p), (SELECT count(*) FROM source WHERE project_id = :p AND state = 'ready'),
             (SELECT count(*) FROM snapshot WHERE project_id = :p), (SELECT count(*) FROM delivery WHERE project_id = :p), (SELECT count(*) FROM delivery WHERE project_id = :p AND size IS NOT NULL))",
            ['p' => (string) $project->id],
        );

        return \is_string($stamp) ? $stamp : '';
    }
}
