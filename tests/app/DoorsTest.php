<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Doctrine\DBAL\Exception\DriverException;
use PDOException;
use RuntimeException;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\Security\Core\User\PasswordAuthenticatedUserInterface;
use Wattage\App\Database\Outage;
use Wattage\App\Entity\Role;

/** Signing in, what is written down about it, and what a server says when it cannot work. */
final class DoorsTest extends ApiTestCase
{
    public function testWhatAnybodyCanClaimAboutWhereARequestComesFromIsNotBelieved(): void
    {
        $user = $this->user();
        $this->refreshToken();
        for ($i = 0; $i < 8; ++$i) {
            $this->trySigningIn($user->email, 'wrong', ['X-Forwarded-For' => "10.0.0.{$i}"]);
            self::assertSame(401, $this->statusCode());
        }
        $this->trySigningIn($user->email, 'wrong', ['X-Forwarded-For' => '10.0.0.99']);
        self::assertSame(429, $this->statusCode());
    }

    public function testGuessingManyAccountsFromOneAddressIsSlowedDown(): void
    {
        $this->refreshToken();
        $this->browser->setServerParameter('REMOTE_ADDR', '203.0.113.7');
        for ($i = 0; $i < 60; ++$i) {
            $this->trySigningIn("guess-{$i}@wattage.example", 'wrong');
            self::assertSame(401, $this->statusCode(), (string) $i);
        }
        $this->trySigningIn('guess-60@wattage.example', 'wrong');
        self::assertSame(429, $this->statusCode());
    }

    public function testSomebodyElsesGuessingLocksNobodyOutOfTheirOwnPlace(): void
    {
        $user = $this->user();
        $this->browser->setServerParameter('REMOTE_ADDR', '198.51.100.1');
        $this->signIn($user);
        $this->asNobody();
        for ($i = 0; $i < 61; ++$i) {
            $this->browser->setServerParameter('REMOTE_ADDR', "192.0.2.{$i}");
            $this->trySigningIn($user->email, 'wrong');
        }
        self::assertSame(429, $this->statusCode(), 'the guesser is held up');
        $this->browser->setServerParameter('REMOTE_ADDR', '198.51.100.1');
        $this->trySigningIn($user->email, 'long enough');
        self::assertSame(200, $this->statusCode(), 'whom it belongs to is not');
    }

    public function testAnUnknownAddressIsHashedForAsAKnownOneIs(): void
    {
        $hasher = new class implements UserPasswordHasherInterface {
            public int $hashed = 0;

            public function hashPassword(PasswordAuthenticatedUserInterface $user, string $plainPassword): string
            {
                ++$this->hashed;

                return 'x';
            }

            public function isPasswordValid(PasswordAuthenticatedUserInterface $user, string $plainPassword): bool
            {
                return false;
            }

            public function needsRehash(PasswordAuthenticatedUserInterface $user): bool
            {
                return false;
            }
        };
        static::getContainer()->set('security.user_password_hasher', $hasher);
        $this->refreshToken();
        $this->trySigningIn('nobody-'.bin2hex(random_bytes(4)).'@wattage.example', 'wrong');
        self::assertSame([401, 1], [$this->statusCode(), $hasher->hashed]);
    }

    public function testTheOldestOfTooManySessionsEnds(): void
    {
        $user = $this->user();
        $this->signIn($user);
        $database = $this->entities()->getConnection();
        for ($i = 0; $i < 20; ++$i) {
            $database->executeStatement("INSERT INTO sign_in VALUES (?, ?, now() - make_interval(mins => ?), '127.0.0.1')", ["other-{$i}-{$user->id}", (string) $user->id, $i + 1]);
            $database->executeStatement("INSERT INTO session VALUES (?, '', 2000000000, 0)", ["other-{$i}-{$user->id}"]);
        }
        $this->signIn($user);
        $left = $database->fetchFirstColumn('SELECT sess_id FROM session WHERE sess_id LIKE ? ORDER BY sess_id', ["other-%-{$user->id}"]);
        self::assertCount(19, $left);
        self::assertNotContains("other-19-{$user->id}", $left);
    }

    /** Of two who sign in to one account at the same moment, neither ends the other's session, which may not be stored yet. */
    public function testWhoSignsInAtTheSameMomentStaysSignedIn(): void
    {
        $user = $this->user();
        $database = $this->entities()->getConnection();
        foreach (['just now' => 0, 'long ago' => 5] as $when => $minutes) {
            $database->executeStatement("INSERT INTO sign_in VALUES (?, ?, now() - make_interval(mins => ?), '127.0.0.1')", ["{$when}-{$user->id}", (string) $user->id, $minutes]);
        }
        $this->signIn($user);
        $left = $database->fetchFirstColumn('SELECT session FROM sign_in WHERE account_id = ? AND session LIKE ?', [(string) $user->id, "%-{$user->id}"]);
        self::assertSame(["just now-{$user->id}"], $left, 'what has no session for long has none any more');
    }

    public function testTheOwnerReadsWhoDidWhat(): void
    {
        $owner = $this->signedIn();
        $project = $this->newProject();
        $nora = $this->user('Nora');
        $this->share($project, $nora, Role::Viewer);
        $this->call('PATCH', "/api/projects/{$project}/members/{$nora->id}", ['role' => 'editor']);
        $this->call('POST', "/api/projects/{$project}/invitations", ['email' => 'new@wattage.example', 'role' => 'viewer']);
        $this->call('DELETE', "/api/projects/{$project}");
        $this->call('POST', "/api/projects/{$project}/restore");
        $this->signIn($nora);
        $this->signIn($owner);
        $entries = $this->call('GET', "/api/projects/{$project}/members/record")['entries'];
        $told = array_map(static fn (array $entry): string => explode(' ', $entry['who'])[0].' '.$entry['what'], $entries);
        foreach (["Ada made Nora ({$nora->email}) an editor", 'Ada invited new@wattage.example as a viewer', 'Ada deleted the project', 'Ada took the project back', 'Nora signed in'] as $expected) {
            self::assertContains($expected, $told);
        }
        self::assertSame('127.0.0.1', $entries[0]['address']);
    }

    public function testHealthIsForEverybodyAndFiguresForWhoeverHasTheToken(): void
    {
        self::assertSame('ok', $this->call('GET', '/api/health')['status']);
        $this->call('GET', '/api/metrics');
        self::assertSame(404, $this->statusCode());
        $this->call('GET', '/api/metrics', null, ['Authorization' => 'Bearer ']);
        self::assertSame(404, $this->statusCode(), 'no token is none');
        $figures = self::service(\Wattage\App\Upkeep\Monitor::class)->figures();
        self::assertArrayHasKey('wattage_jobs_waiting', $figures);
        self::assertGreaterThan(0, $figures['wattage_store_free_bytes'][1]);
    }

    public function testAnOutageOfTheDatabaseIsToldFromOtherErrors(): void
    {
        self::assertTrue(Outage::is(new RuntimeException('x', 0, new PDOException('SQLSTATE[08006] [7] connection to server at "127.0.0.1" failed: Connection refused'))));
        $driver = static fn (string $message, string $state): DriverException => new DriverException(new class($message, $state) extends \Doctrine\DBAL\Driver\AbstractException {}, null);
        self::assertTrue(Outage::is($driver('FATAL: the database system is shutting down', '57P01')));
        self::assertTrue(Outage::is($driver('server closed the connection unexpectedly', 'HY000')));
        self::assertFalse(Outage::is($driver('duplicate key value', '23505')));
        self::assertFalse(Outage::is(new RuntimeException('server closed the connection')));
    }

    public function testAForgottenPasswordIsAnsweredBeforeAnybodyLooks(): void
    {
        $user = $this->user();
        $this->refreshToken();
        $this->call('POST', '/api/forgotten-password', ['email' => $user->email]);
        self::assertSame(202, $this->statusCode());
        self::assertContains($user->email, array_column($this->call('GET', '/api/post-box')['letters'], 'to'), 'the letter goes out all the same');
    }

    /** @param array<string, string> $headers */
    private function trySigningIn(string $email, string $password, array $headers = []): void
    {
        $this->call('POST', '/api/session', ['email' => $email, 'password' => $password], $headers);
    }
}
