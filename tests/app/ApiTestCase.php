<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Doctrine\ORM\EntityManagerInterface;
use LogicException;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Bundle\FrameworkBundle\KernelBrowser;
use Symfony\Bundle\FrameworkBundle\Test\WebTestCase;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Role;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\User;

/** Talks to the application as the screen does: over HTTP, with a session, to the real PostgreSQL, queue and ffmpeg. */
abstract class ApiTestCase extends WebTestCase
{
    protected KernelBrowser $browser;
    private string $csrf = '';

    protected function setUp(): void
    {
        $this->browser = static::createClient();
        $this->browser->disableReboot();
        $this->entities()->getConnection()->executeStatement('DELETE FROM sign_in_try');
        // What an earlier test left undone is not this one's work.
        $this->entities()->getConnection()->executeStatement("UPDATE job SET state = 'cancelled' WHERE state IN ('waiting', 'running')");
    }

    protected function user(string $name = 'Ada'): User
    {
        $user = new User(bin2hex(random_bytes(6)).'@wattage.example', $name);
        $user->setPassword(self::service(UserPasswordHasherInterface::class)->hashPassword($user, 'long enough'));
        $this->entities()->persist($user);
        $this->entities()->flush();

        return $user;
    }

    protected function signIn(User $user): void
    {
        $this->browser->getCookieJar()->clear();
        $this->csrf = $this->call('GET', '/api/session')['csrf'];
        $this->csrf = $this->call('POST', '/api/session', ['email' => $user->email, 'password' => 'long enough'])['csrf'];
        self::assertSame(200, $this->statusCode());
    }

    protected function asNobody(): void
    {
        $this->browser->getCookieJar()->clear();
        $this->refreshToken();
    }

    protected function refreshToken(): void
    {
        $this->csrf = $this->call('GET', '/api/session')['csrf'];
    }

    protected function signedIn(): User
    {
        $user = $this->user();
        $this->signIn($user);

        return $user;
    }

    /**
     * @param array<mixed>|string|null $body
     * @param array<string, string> $headers
     *
     * @return array<string, mixed>
     */
    protected function call(string $method, string $path, array|string|null $body = null, array $headers = []): array
    {
        $server = ['CONTENT_TYPE' => 'application/json', 'HTTP_X_CSRF_TOKEN' => $this->csrf];
        foreach ($headers as $name => $value) {
            $server['HTTP_'.strtoupper(strtr($name, '-', '_'))] = $value;
        }
        $this->browser->request($method, $path, server: $server, content: \is_array($body) ? json_encode($body, \JSON_THROW_ON_ERROR) : (string) $body);
        /** @var array<string, mixed>|scalar|null $json */
        $json = json_decode((string) $this->browser->getInternalResponse()->getContent(), true);

        return \is_array($json) ? $json : [];
    }

    /** What a refusal says. */
    protected function refusal(string $method, string $path): string
    {
        $detail = $this->call($method, $path)['detail'] ?? null;
        self::assertIsString($detail);

        return $detail;
    }

    /**
     * @param array<string, mixed> $edit
     *
     * @return Answer<'Step'>
     */
    protected function edit(string $project, array $edit, ?int $base = null): array
    {
        $base ??= $this->call('GET', "/api/projects/{$project}/mix")['revision'];

        return $this->call('POST', "/api/projects/{$project}/edits", $edit, ['If-Match' => "\"{$base}\""]);
    }

    /**
     * Undo, redo and the like, from what the screen shows.
     *
     * @phpstan-impure
     *
     * @param ?array<mixed> $body
     *
     * @return Answer<'Step'>
     */
    protected function step(string $method, string $project, string $step, ?array $body = null, ?int $base = null): array
    {
        $base ??= $this->call('GET', "/api/projects/{$project}/mix")['revision'];

        /** @var Answer<'Step'> $found */
        $found = $this->call($method, "/api/projects/{$project}/{$step}", $body, ['If-Match' => "\"{$base}\""]);

        return $found;
    }

    protected function newProject(string $name = 'Crossing'): string
    {
        $id = $this->call('POST', '/api/projects', ['name' => $name])['id'];
        self::assertSame(201, $this->statusCode());

        return $id;
    }

    protected function share(string $project, User $user, Role $role): void
    {
        $this->entities()->clear();
        $found = $this->entities()->find(Project::class, $project);
        self::assertNotNull($found);
        $found->share($this->entities()->find(User::class, $user->id) ?? $user, $role);
        $this->entities()->flush();
    }

    /**
     * Sends a file as the screen does, in pieces, and lets a worker take it.
     *
     * @param int<1, max> $piece bytes
     *
     * @return Answer<'Source'> the source as it then is
     */
    protected function bringIn(string $project, string $name, string $bytes, int $piece = 50_000): array
    {
        $source = $this->call('POST', "/api/projects/{$project}/sources", ['name' => $name, 'size' => \strlen($bytes)]);
        if (201 !== $this->statusCode()) {
            return $source;
        }
        foreach (str_split($bytes, $piece) as $i => $part) {
            $this->call('PUT', "/api/sources/{$source['id']}/bytes?offset=".$i * $piece, $part);
            self::assertSame(200, $this->statusCode());
        }
        $this->work();

        return $this->sourceNow($project, $source['id']);
    }

    /** @return Answer<'Source'> */
    protected function sourceNow(string $project, string $id): array
    {
        foreach ($this->call('GET', "/api/projects/{$project}/sources")['sources'] as $source) {
            /** @var Answer<'Source'> $source */
            if ($source['id'] === $id) {
                return $source;
            }
        }
        self::fail('The source is not listed.');
    }

    /** One worker that takes what waits, through the real queue, and then ends. */
    protected function work(int $jobs = 1): void
    {
        $work = new CommandTester((new Application(static::$kernel ?? throw new LogicException()))->find('wattage:work'));
        $work->execute(['--jobs' => $jobs, '--until-idle' => true]);
        $this->entities()->clear();
    }

    /** Where the application under test keeps its files. */
    protected static function storage(): string
    {
        $path = $_SERVER['WATTAGE_STORAGE'] ?? null;
        self::assertIsString($path);

        return $path;
    }

    /** @phpstan-impure */
    protected function statusCode(): int
    {
        return $this->browser->getInternalResponse()->getStatusCode();
    }

    protected function response(): Response
    {
        return $this->browser->getResponse();
    }

    /**
     * @template T of object
     *
     * @param class-string<T> $class
     *
     * @return T
     */
    protected static function service(string $class): object
    {
        $service = static::getContainer()->get($class);
        self::assertInstanceOf($class, $service);

        return $service;
    }

    protected function entities(): EntityManagerInterface
    {
        return self::service(EntityManagerInterface::class);
    }

    protected function sourceCount(string $project): int
    {
        return $this->entities()->getRepository(Source::class)->count(['project' => $project]);
    }

    /**
     * A WAV file of a sine, made by ffmpeg from nothing.
     *
     * @param list<string> $options
     */
    protected static function media(float $seconds = 1.0, int $channels = 2, int $rate = 48_000, string $format = 'wav', array $options = [], int $hz = 440): string
    {
        $layout = [1 => 'mono', 2 => 'stereo', 6 => '5.1'][$channels];

        return \Wattage\Tests\support\Sound::run(['ffmpeg', '-v', 'error', '-f', 'lavfi', '-i', "sine=frequency={$hz}:sample_rate={$rate}:duration={$seconds},aformat=channel_layouts={$layout}", ...$options, '-f', $format, '-']);
    }
}
