<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use LogicException;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Media\Quotas;
use Wattage\App\Media\Refused;
use Wattage\App\Storage\Store;
use Wattage\App\Upkeep\Reaper;

/** What nobody needs any more goes, and nothing else; and nobody takes more than their share. */
final class UpkeepTest extends ApiTestCase
{
    public function testADeletedProjectGoesWithItsFilesOnceItsTimeIsOver(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        [$source, $delivery] = $this->rendered($project);
        $this->call('DELETE', "/api/projects/{$project}");
        $this->reap();
        self::assertSame('Crossing', $this->call('POST', "/api/projects/{$project}/restore")['name'], 'it can be taken back at first');
        $this->call('GET', "/api/deliveries/{$delivery}/file");
        self::assertSame(200, $this->statusCode());
        $this->call('DELETE', "/api/projects/{$project}");
        $this->sql("UPDATE project SET deleted_at = now() - INTERVAL '31 days' WHERE id = ?", $project);
        $this->age("sources/{$source}", "deliveries/{$delivery}");
        self::assertSame(1, $this->reap()['projects']);
        $this->call('POST', "/api/projects/{$project}/restore");
        self::assertSame(404, $this->statusCode());
        self::assertSame([], [...$this->stored("sources/{$source}"), ...$this->stored("deliveries/{$delivery}.wav")]);
    }

    public function testFilesThatACopyOfTheProjectSoundsFromStay(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        [$source] = $this->rendered($project);
        $copy = $this->call('POST', "/api/projects/{$project}/copy", ['name' => 'Copy'])['id'];
        $this->call('DELETE', "/api/projects/{$project}");
        $this->sql("UPDATE project SET deleted_at = now() - INTERVAL '31 days' WHERE id = ?", $project);
        $this->age("sources/{$source}");
        $this->reap();
        $of = $this->call('GET', "/api/projects/{$copy}/sources")['sources'][0]['id'];
        $this->call('GET', "/api/sources/{$of}/segments/0");
        self::assertSame(200, $this->statusCode());
    }

    public function testWhatBelongsToNothingGoesUnlessItIsYoung(): void
    {
        $store = self::service(Store::class);
        foreach (['sources/0192aaaa-0000-7000-8000-000000000001/pcm', 'deliveries/0192aaaa-0000-7000-8000-000000000002.wav', 'uploads/0192aaaa-0000-7000-8000-000000000003/000000000000000'] as $path) {
            $store->write($path, 'x');
        }
        $this->reap();
        self::assertTrue($store->has('deliveries/0192aaaa-0000-7000-8000-000000000002.wav'));
        $this->age('sources/0192aaaa', 'deliveries/0192aaaa', 'uploads/0192aaaa');
        self::assertSame(3, $this->reap()['files']);
        self::assertFalse($store->has('deliveries/0192aaaa-0000-7000-8000-000000000002.wav'));
    }

    public function testAnUploadNobodyTookUpAgainIsGoneAfterADay(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $id = $this->call('POST', "/api/projects/{$project}/sources", ['name' => 'lost.wav', 'size' => 500])['id'];
        $this->call('PUT', "/api/sources/{$id}/bytes?offset=0", 'RIFF');
        $this->reap();
        self::assertSame(1, $this->sourceCount($project), 'it may still go on');
        $this->sql("UPDATE source SET created_at = created_at - INTERVAL '25 hours' WHERE id = ?", $id);
        $this->age("uploads/{$id}");
        $this->reap();
        self::assertSame([0, []], [$this->sourceCount($project), $this->stored("uploads/{$id}")]);
    }

    public function testARemovedDeliveryIsGoneWithItsFile(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        [, $delivery] = $this->rendered($project);
        $this->call('DELETE', "/api/deliveries/{$delivery}");
        self::assertSame([204, []], [$this->statusCode(), $this->stored('deliveries/'.$delivery)]);
        self::assertSame([], $this->call('GET', "/api/projects/{$project}/deliveries")['deliveries']);
    }

    public function testSessionsThatEndedAreCollected(): void
    {
        $id = 'ended-'.bin2hex(random_bytes(4));
        $this->entities()->getConnection()->executeStatement("INSERT INTO session VALUES (?, '', 1000, 0)", [$id]);
        $this->reap();
        self::assertFalse($this->entities()->getConnection()->fetchOne('SELECT 1 FROM session WHERE sess_id = ?', [$id]));
    }

    public function testMoreThanAnAccountMayHaveIsRefusedBeforeItIsSent(): void
    {
        $user = $this->signedIn();
        $id = $this->newProject();
        $project = $this->entities()->find(Project::class, $id) ?? self::fail();
        $quotas = fn (int $gb, int $hours, int $renders): Quotas => new Quotas($this->entities()->getConnection(), $gb, $hours, $renders);
        $quotas(1, 1, 1)->file($project, 'fits.wav', 900_000_000);
        self::assertRefused('“big.wav” does not fit: an account has 1 GB of storage, and 1.0 GB are left', static fn () => $quotas(1, 1, 1)->file($project, 'big.wav', 1_100_000_000));
        $this->call('POST', "/api/projects/{$id}/sources", ['name' => 'announced.wav', 'size' => 600_000_000]);
        self::assertRefused('0.4 GB are left', static fn () => $quotas(1, 1, 1)->file($project, 'more.wav', 500_000_000));
        $this->bringIn($id, 'tone.wav', self::media(2.0));
        $source = $this->entities()->getRepository(Source::class)->findOneBy(['name' => 'tone.wav', 'project' => $id]) ?? self::fail();
        self::assertSame(3598, $quotas(1, 1, 1)->secondsLeft($source));
        self::assertRefused('1 hours of sound', static fn () => $quotas(1, 1, 1)->sound($source, 3599));
        $user = $this->entities()->find(\Wattage\App\Entity\User::class, $user->id) ?? self::fail();
        self::assertRefused('the most for one account', static fn () => $quotas(1, 1, 0)->render($user));
    }

    public function testTooManyRendersAreRefusedWithASentence(): void
    {
        $user = $this->signedIn();
        $project = $this->newProject();
        $this->rendered($project);
        for ($i = 0; $i < 40; ++$i) {
            $this->sql("INSERT INTO job (id, kind, state, progress, cancel_requested, created_at, seconds, tries, account_id) VALUES (gen_random_uuid(), 'render', 'waiting', 0, FALSE, now(), 5, 0, ?)", (string) $user->id);
        }
        $refused = $this->call('POST', "/api/projects/{$project}/deliveries", ['format' => 'pcm16']);
        self::assertSame(422, $this->statusCode());
        self::assertStringContainsString('the most for one account', $refused['detail']);
    }

    /** @return array{string, string} a source and a finished delivery */
    private function rendered(string $project): array
    {
        $source = $this->bringIn($project, 'tone.wav', self::media(0.3))['id'];
        $this->edit($project, ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music']);
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'c', 'source' => $source, 'at' => 0]);
        $delivery = $this->call('POST', "/api/projects/{$project}/deliveries", ['format' => 'pcm16'])['id'];
        $this->work();

        return [$source, $delivery];
    }

    /** @return array<string, int> */
    private function reap(): array
    {
        $this->entities()->clear();

        return self::service(Reaper::class)->run();
    }

    public function testFilesOfEveryKindAreKeptAndVerified(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'tone.wav', self::media(1.0))['id'];
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'c', 'source' => $source, 'at' => 0, 'stem' => 'music']);
        $files = array_map(static fn (string $format): array => ['format' => $format], ['wav', 'flac', 'mp3', 'aac', 'opus']);
        $ids = array_column($this->call('POST', "/api/projects/{$project}/handovers", ['files' => $files])['deliveries'], 'id');
        $this->work(\count($files));
        $mine = fn (): array => array_filter($this->stored('deliveries/'), static fn (string $path): bool => \in_array(explode('.', basename($path))[0], $ids, true));
        self::assertCount(5, $mine());
        $this->age('deliveries/');
        $this->reap();
        self::assertCount(5, $mine(), 'whatever kind of file it is');
        $verify = new CommandTester((new Application(static::$kernel ?? throw new LogicException()))->find('wattage:verify'));
        $verify->execute([]);
        foreach ($ids as $id) {
            self::assertStringNotContainsString($id, $verify->getDisplay());
        }
        unlink(self::storage()."/media/deliveries/{$ids[1]}.flac");
        $verify->execute([]);
        self::assertStringContainsString("{$ids[1]}.flac (revision 2) is missing", $verify->getDisplay());
    }

    private function sql(string $sql, string $id): void
    {
        $this->entities()->getConnection()->executeStatement($sql, [$id]);
        $this->entities()->clear();
    }

    /** Two days pass for some files. */
    private function age(string ...$starts): void
    {
        foreach (['sources', 'deliveries', 'uploads'] as $directory) {
            foreach (self::service(Store::class)->files($directory) as $path => $written) {
                foreach ($starts as $start) {
                    str_starts_with($path, $start) && touch(self::storage()."/media/{$path}", time() - 2 * 86_400);
                }
            }
        }
    }

    /** @return list<string> */
    private function stored(string $start): array
    {
        $paths = array_keys(iterator_to_array(self::service(Store::class)->files(explode('/', $start)[0])));

        return array_values(array_filter($paths, static fn (string $path): bool => str_starts_with($path, $start)));
    }

    /** @param callable(): void $do */
    private static function assertRefused(string $why, callable $do): void
    {
        try {
            $do();
            self::fail('It was taken.');
        } catch (Refused $refused) {
            self::assertStringContainsString($why, $refused->getMessage());
        }
    }
}
