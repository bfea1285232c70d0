<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Doctrine\DBAL\Connection;
use LogicException;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\JobKind;
use Wattage\App\Entity\JobState;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\User;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Interrupted;
use Wattage\App\Job\Lease;
use Wattage\App\Job\LeaseLost;
use Wattage\App\Job\Queue;
use Wattage\App\Work\JobRunner;

/** Jobs are done once, by whoever holds the lease, in an order that is fair; whatever happens to workers. */
final class QueueTest extends ApiTestCase
{
    private Queue $queue;
    private Connection $database;

    protected function setUp(): void
    {
        parent::setUp();
        $this->queue = self::service(Queue::class);
        $this->database = $this->entities()->getConnection();
    }

    public function testAJobIsHandedToOneWorker(): void
    {
        $job = $this->job($this->user());
        self::assertSame($job, $this->queue->take()?->job);
        self::assertNull($this->queue->take());
    }

    public function testAJobWhoseWorkerIsSilentForTooLongIsHandedToAnother(): void
    {
        $this->job($this->user());
        $first = $this->taken();
        $this->expire($first);
        $second = $this->taken();
        self::assertSame($first->job, $second->job);
        $this->expectException(LeaseLost::class);
        $first->report(0.9);
    }

    public function testOnlyWhoeverHoldsTheLeaseEndsTheJob(): void
    {
        $this->job($this->user());
        $first = $this->taken();
        $this->expire($first);
        $second = $this->taken();
        try {
            $first->end(JobState::Done);
            self::fail('It was ended by a worker that had lost it.');
        } catch (LeaseLost) {
            self::assertSame('running', $this->state($first->job));
        }
        $second->end(JobState::Done);
        self::assertSame('done', $this->state($first->job));
        $this->expectException(LeaseLost::class);
        $second->end(JobState::Failed);
    }

    public function testTellingHowFarItIsKeepsTheLease(): void
    {
        $this->job($this->user());
        $lease = $this->taken();
        $this->database->executeStatement("UPDATE job SET lease_until = now() + INTERVAL '1 second' WHERE id = ?", [$lease->job]);
        $lease->report(0.5);
        self::assertEquals(1, $this->database->fetchOne("SELECT count(*) FROM job WHERE id = ? AND progress = 0.5 AND lease_until > now() + INTERVAL '20 seconds'", [$lease->job]));
    }

    public function testAJobNobodyWantsAnyMoreIsToldToItsWorker(): void
    {
        $id = $this->job($this->user());
        $lease = $this->taken();
        $this->queue->cancel($this->entities()->find(Job::class, $id) ?? throw new LogicException());
        $this->expectException(Cancelled::class);
        $lease->report(0.1);
    }

    public function testAWorkerThatIsAskedToEndGivesItsJobBackAndThatIsNoTry(): void
    {
        $id = $this->job($this->user());
        $lease = $this->queue->take(false, static fn (): bool => true) ?? self::fail('Nothing to do.');
        try {
            $lease->alive();
            self::fail('It went on.');
        } catch (Interrupted) {
            $lease->giveBack();
        }
        self::assertSame(['waiting', 0], [$this->state($id), $this->database->fetchOne('SELECT tries FROM job WHERE id = ?', [$id])]);
    }

    public function testAJobWhoseWorkersAlwaysDieIsGivenUpWithASentence(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $bytes = self::media(0.2);
        $id = $this->call('POST', "/api/projects/{$project}/sources", ['name' => 'deadly.wav', 'size' => \strlen($bytes)])['id'];
        $this->call('PUT', "/api/sources/{$id}/bytes?offset=0", $bytes);
        for ($try = 0; $try < Queue::MOST_TRIES; ++$try) {
            $this->expire($this->taken());
        }
        self::assertNull($this->queue->take());
        $source = $this->sourceNow($project, $id);
        self::assertSame('refused', $source['state']);
        self::assertStringContainsString('begun 3 times', $source['problem']);
        $this->call('POST', "/api/sources/{$id}/retry");
        $this->work();
        self::assertSame('ready', $this->sourceNow($project, $id)['state'], 'and can be tried again');
    }

    public function testASecondWorkerOnTheSameSourceMakesItReadyOnce(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $bytes = self::media(0.2);
        $id = $this->call('POST', "/api/projects/{$project}/sources", ['name' => 'twice.wav', 'size' => \strlen($bytes)])['id'];
        $this->call('PUT', "/api/sources/{$id}/bytes?offset=0", $bytes);
        $slow = $this->taken();
        $this->expire($slow);
        $this->work();
        self::service(JobRunner::class)->run($slow);
        self::assertSame('ready', $this->sourceNow($project, $id)['state']);
        self::assertSame(hash('sha256', $bytes), $this->entities()->getRepository(Source::class)->find($id)?->sha256);
        $this->call('GET', "/api/sources/{$id}/segments/0");
        self::assertSame(200, $this->statusCode());
    }

    public function testWorkOfSomebodyWhoHasNoneInHandGoesFirst(): void
    {
        [$many, $stranger] = [$this->user('Many'), $this->user('Stranger')];
        for ($i = 0; $i < 5; ++$i) {
            $this->job($many, 3600);
        }
        $late = $this->job($stranger, 3600);
        $this->taken();
        self::assertSame($late, $this->taken()->job);
    }

    public function testNobodyHasMoreThanAFewInHandAtOnce(): void
    {
        $many = $this->user('Many');
        for ($i = 0; $i < 5; ++$i) {
            $this->job($many);
        }
        $this->taken();
        $this->taken();
        self::assertNull($this->queue->take(), 'the third waits');
    }

    public function testShortWorkGoesBeforeLongAndSomeWorkersTakeNothingElse(): void
    {
        $user = $this->user();
        $long = $this->job($user, 3600);
        $short = $this->job($user, 10);
        self::assertSame($short, $this->taken()->job);
        self::assertNull($this->queue->take(onlyShort: true));
        self::assertSame($long, $this->taken()->job);
    }

    private function job(User $account, int $seconds = 5): string
    {
        $job = new Job(JobKind::Render, $account, $seconds);
        $this->entities()->persist($job);
        $this->entities()->flush();

        return (string) $job->id;
    }

    private function taken(): Lease
    {
        return $this->queue->take() ?? self::fail('There is nothing to do.');
    }

    private function expire(Lease $lease): void
    {
        $this->database->executeStatement("UPDATE job SET lease_until = now() - INTERVAL '1 second' WHERE id = ?", [$lease->job]);
    }

    private function state(string $job): string
    {
        $state = $this->database->fetchOne('SELECT state FROM job WHERE id = ?', [$job]);
        self::assertIsString($state);

        return $state;
    }
}
