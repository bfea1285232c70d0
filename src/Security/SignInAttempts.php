<?php

declare(strict_types=1);

namespace Wattage\App\Security;

use Doctrine\DBAL\Connection;
use Symfony\Component\Security\Core\Exception\TooManyLoginAttemptsAuthenticationException;

/**
 * Slows down guessing: by account and address together, by address, and by account. Whoever signed in from an address before is not held up there by
 * what others try elsewhere, so that nobody can lock somebody out. Kept in the database: all application servers count together.
 */
final readonly class SignInAttempts
{
    private const BOTH_PER_MINUTE = 8;
    private const ADDRESS_PER_10_MINUTES = 60;
    private const ACCOUNT_PER_HOUR = 60;
    private const KNOWN_FOR_DAYS = 90;

    public function __construct(private Connection $database)
    {
    }

    /** @throws TooManyLoginAttemptsAuthenticationException */
    public function count(string $account, string $address): void
    {
        [$both, $from, $of] = [self::key($account, $address), self::key('', $address), self::key($account, '')];
        $this->tries($both, 60) < self::BOTH_PER_MINUTE || throw new TooManyLoginAttemptsAuthenticationException(1);
        $this->tries($from, 600) < self::ADDRESS_PER_10_MINUTES || throw new TooManyLoginAttemptsAuthenticationException(10);
        $this->tries($of, 3600) < self::ACCOUNT_PER_HOUR || $this->wasHere($account, $address) || throw new TooManyLoginAttemptsAuthenticationException(60);
        foreach ([$both, $from, $of] as $key) {
            $this->database->executeStatement('INSERT INTO sign_in_try (key, at) VALUES (?, now())', [$key]);
        }
    }

    /** Who has got in was not guessing. */
    public function forget(string $account, string $address): void
    {
        $this->database->executeStatement('DELETE FROM sign_in_try WHERE key IN (?, ?)', [self::key($account, $address), self::key($account, '')]);
        // What others tried from there stays.
        $this->database->executeStatement('DELETE FROM sign_in_try WHERE ctid = (SELECT ctid FROM sign_in_try WHERE key = ? ORDER BY at DESC LIMIT 1)', [self::key('', $address)]);
    }

    private function tries(string $key, int $seconds): int
    {
        $tries = $this->database->fetchOne('SELECT count(*) FROM sign_in_try WHERE key = ? AND at > now() - make_interval(secs => ?)', [$key, $seconds]);

        return is_numeric($tries) ? (int) $tries : 0;
    }

    private function wasHere(string $email, string $address): bool
    {
        return false !== $this->database->fetchOne(
            'SELECT 1 FROM record_entry r JOIN account a ON a.id = r.account_id WHERE a.email = ? AND r.address = ? AND r.what = ? AND r.at > now() - make_interval(days => ?) LIMIT 1',
            [$email, $address, Record::SIGNED_IN, self::KNOWN_FOR_DAYS],
        );
    }

    private static function key(string $account, string $address): string
    {
        return hash('sha256', "{$account}\n{$address}");
    }
}
