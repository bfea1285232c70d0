<?php

declare(strict_types=1);

namespace Wattage\App\Security;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\Request;
use Wattage\App\Entity\User;

/** Where an account is signed in. The oldest session ends when there would be too many; those that have ended by themselves do not count. */
final readonly class SignedIn
{
    public function __construct(private Connection $database, private Record $record, private int $most)
    {
    }

    /** Once the session has the name that it keeps. Another that signs in at this moment is stored only when it has been answered: for a minute it may be missing. */
    public function note(User $user, Request $request): void
    {
        $this->record->ofAccount($user, Record::SIGNED_IN);
        $this->database->executeStatement(
            'INSERT INTO sign_in (session, account_id, at, address) VALUES (?, ?, now(), ?) ON CONFLICT (session) DO UPDATE SET account_id = EXCLUDED.account_id, at = now()',
            [$request->getSession()->getId(), (string) $user->id, (string) $request->getClientIp()],
        );
        $ended = $this->database->fetchFirstColumn(
            'DELETE FROM sign_in WHERE account_id = :account AND session NOT IN (
                SELECT i.session FROM sign_in i LEFT JOIN session s ON s.sess_id = i.session
                WHERE i.account_id = :account AND (s.sess_id IS NOT NULL OR i.session = :present) ORDER BY i.at DESC, i.session LIMIT :most
            ) AND (at < now() - make_interval(mins => 1) OR EXISTS (SELECT FROM session s WHERE s.sess_id = sign_in.session))
            RETURNING session',
            ['account' => (string) $user->id, 'present' => $request->getSession()->getId(), 'most' => $this->most],
        );
        foreach ($ended as $session) {
            $this->database->executeStatement('DELETE FROM session WHERE sess_id = ?', [$session]);
        }
    }
}
