<?php

declare(strict_types=1);

namespace Wattage\App\Request;

use Closure;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Wattage\App\Entity\User;

/**
 * Does what a request asks for once, however often it is sent with the same Idempotency-Key. What was done and that it was done are stored together or
 * not at all; a request that was refused has done nothing, and may be tried again.
 */
final readonly class Once
{
    public const HEADER = 'Idempotency-Key';
    private const KEPT_DAYS = 14;

    public function __construct(private EntityManagerInterface $entities, private Connection $database)
    {
    }

    /**
     * @param Closure(): string $do gives the id or number of what it made, which is then given for every repetition, too
     *
     * @throws HttpException when the key is none, or was used for something else
     */
    public function run(Request $request, User $user, Closure $do): string
    {
        $key = $request->headers->get(self::HEADER);
        if (null === $key) {
            return $do();
        }
        1 === preg_match('/^[\w-]{8,64}$/D', $key) || throw new HttpException(400, 'The Idempotency-Key must be 8 to 64 letters, digits, - or _.');
        $fingerprint = hash('sha256', implode("\n", [$request->getMethod(), $request->getRequestUri(), $request->getContent()]));

        return $this->entities->wrapInTransaction(fn (): string => $this->first((string) $user->id, $key, $fingerprint, $do));
    }

    /** Forgets what nobody will send again. */
    public function forget(User $user): void
    {
        $this->database->executeStatement('DELETE FROM done_request WHERE account_id = ? AND created_at < now() - make_interval(days => ?)', [(string) $user->id, self::KEPT_DAYS]);
    }

    /** @param Closure(): string $do */
    private function first(string $account, string $key, string $fingerprint, Closure $do): string
    {
        // One that is being done at this moment is waited for here.
        $isFirst = 1 === $this->database->executeStatement(
            'INSERT INTO done_request (account_id, key, fingerprint, result, created_at) VALUES (?, ?, ?, \'\', now()) ON CONFLICT DO NOTHING',
            [$account, $key, $fingerprint],
        );
        if ($isFirst) {
            $result = $do();
            $this->database->executeStatement('UPDATE done_request SET result = ? WHERE account_id = ? AND key = ?', [$result, $account, $key]);

            return $result;
        }
        /** @var array{fingerprint: string, result: string} $done */
        $done = $this->database->fetchAssociative('SELECT fingerprint, result FROM done_request WHERE account_id = ? AND key = ?', [$account, $key]);
        $done['fingerprint'] === $fingerprint || throw new HttpException(422, 'This key was already used for another request. Give each request a key of its own.');

        return $done['result'];
    }
}
