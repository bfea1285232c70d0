<?php

declare(strict_types=1);

namespace Wattage\App\Database;

use Doctrine\DBAL\Exception\ConnectionException;
use Doctrine\DBAL\Exception\DriverException;
use PDOException;
use Throwable;

/** Tells an error that means the database is away from any other. */
final class Outage
{
    /** Of PostgreSQL: no connection, shutting down, starting up, too many connections. */
    private const STATES = ['08', '57P', '53300'];

    /** What the client library says when the server has gone, under no state of its own. */
    private const WORDS = ['server closed the connection', 'no connection to the server', 'connection refused', 'terminating connection', 'connection timed out'];

    public static function is(Throwable $error): bool
    {
        for (; null !== $error; $error = $error->getPrevious()) {
            if ($error instanceof ConnectionException || (self::isOfTheDriver($error) && self::meansIt($error))) {
                return true;
            }
        }

        return false;
    }

    private static function isOfTheDriver(Throwable $error): bool
    {
        return $error instanceof PDOException || $error instanceof DriverException;
    }

    private static function meansIt(Throwable $error): bool
    {
        $state = $error instanceof DriverException ? (string) $error->getSQLState() : (string) $error->getCode();
        foreach (self::STATES as $start) {
            if (str_starts_with($state, $start)) {
                return true;
            }
        }
        $text = strtolower($error->getMessage());

        return [] !== array_filter(self::WORDS, static fn (string $word): bool => str_contains($text, $word));
    }
}
