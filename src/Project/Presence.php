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

    /**
     * All at once, since every open screen asks it all the time. A screen that is fresh is not even locked, and a name of a screen that
     * somebody else has is left alone.
     */
    private const SEEN = "WITH written AS (
            INSERT INTO presence (project_id, screen, account_id, holds, seen_at)
            SELECT :project, :screen, :account, :holds, now() WHERE NOT EXISTS (
                SELECT FROM presence WHERE project_id = :project AND screen = :screen
                    AND holds IS NOT DISTINCT FROM :holds AND seen_at >= now() - make_interval(secs => :fresh))
            ON CONFLICT (project_id, screen) DO UPDATE SET holds = excluded.holds, seen_at = now() WHERE presence.account_id = excluded.account_id
        )
        SELECT concat_ws('-',
                (SELECT concat_ws('-', count(*), count(*) FILTER (WHERE state = 'ready')) FROM source WHERE project_id = :project),
                (SELECT count(*) FROM snapshot WHERE project_id = :project),
                (SELECT concat_ws('-', count(*), count(size)) FROM delivery WHERE project_id = :project)) AS lists,
            (SELECT coalesce(json_agg(others), '[]') FROM (
                SELECT p.screen, p.account_id AS account, a.name, p.holds FROM presence p
                JOIN account a ON a.id = p.account_id JOIN membership m ON m.project_id = p.project_id AND m.user_id = p.account_id
                WHERE p.project_id = :project AND p.screen <> :screen AND p.seen_at > now() - make_interval(secs => :gone) ORDER BY a.name, p.screen LIMIT 100
            ) others) AS people";

    public function __construct(private Connection $database)
    {
    }

    /**
     * @param ?string $holds kind and id of what a hand is on, as clip:… or fader:…
     *
     * @return array{lists: string, people: list<array{screen: string, account: string, name: string, holds: ?string}>} a text that is another
     *                                                                                                                  as soon as recordings, snapshots or deliveries came, went, or are ready; and all other screens on the project, of members
     */
    public function seen(Project $project, User $user, Uuid $screen, ?string $holds): array
    {
        /** @var array{lists: string, people: string} $row */
        $row = $this->database->fetchAssociative(self::SEEN, [
            'project' => (string) $project->id, 'screen' => (string) $screen, 'account' => (string) $user->id, 'holds' => $holds,
            'fresh' => self::FRESH, 'gone' => self::GONE_AFTER,
        ]);
        /** @var list<array{screen: string, account: string, name: string, holds: ?string}> $people */
        $people = json_decode($row['people'], true, 4, \JSON_THROW_ON_ERROR);

        return ['lists' => $row['lists'], 'people' => $people];
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
}
