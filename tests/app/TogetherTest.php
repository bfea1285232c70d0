<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Psr\Cache\CacheItemPoolInterface;
use Wattage\App\Entity\Role;
use Wattage\App\Entity\User;
use Wattage\App\Project\History;
use Wattage\Tests\support\Random;

/** Several people on one mix: every step names what the screen shows, and is answered from there. */
final class TogetherTest extends ApiTestCase
{
    public function testAnAnswerLeadsFromWhatTheScreenShowsToThePresentWhoeverDidIt(): void
    {
        [$project, $ada, $ben] = $this->shared();
        $this->edit($project, self::track('music'), base: 1);
        $this->signIn($ben);
        $this->edit($project, ['edit' => 'set-fader', 'track' => 'music', 'fader' => -7], base: 2);
        $this->signIn($ada);
        $answer = $this->edit($project, self::track('speech'), base: 2);
        self::assertSame([2, 4], [$answer['from'], $answer['revision']]);
        self::assertEquals(-7, $answer['changes']['changedTracks'][0]['fader'], 'what Ben did comes with it');
        self::assertSame([['name' => 'Ben', 'what' => 'Set Music to −7.0 dB']], $answer['others']);
        $far = $this->call('GET', "/api/projects/{$project}/changes?from=1");
        self::assertSame([1, 4, ['music', 'speech']], [$far['from'], $far['revision'], $far['changes']['order']]);
    }

    public function testABaseThatNeverWasIsRefusedWithoutHarm(): void
    {
        [$project] = $this->shared();
        foreach ([0, 2, 99_999] as $base) {
            $problem = $this->edit($project, self::track('music'), base: $base);
            self::assertSame([409, 'unknown-base'], [$this->statusCode(), $problem['code']]);
        }
        self::assertSame('unknown-base', $this->call('GET', "/api/projects/{$project}/changes?from=7")['code']);
        self::assertSame(1, $this->call('GET', "/api/projects/{$project}/mix")['revision']);
        $this->step('POST', $project, 'undo', base: 1);
        $this->call('POST', "/api/projects/{$project}/undo");
        self::assertSame(428, $this->statusCode(), 'undo names what the screen shows, too');
    }

    public function testUndoOfSomebodyElsesEditIsAskedForFirst(): void
    {
        [$project, $ada, $ben] = $this->shared();
        $this->edit($project, self::track('music'));
        $this->signIn($ben);
        $problem = $this->step('POST', $project, 'undo');
        self::assertSame([409, 'others', 2], [$this->statusCode(), $problem['code'], $problem['revision']]);
        self::assertStringContainsString('by Ada: “Add track Music”', $problem['detail']);
        self::assertSame(1, $this->step('POST', $project, 'undo', ['evenOthers' => true])['revision']);
        $this->signIn($ada);
        self::assertSame([['name' => 'Ben', 'what' => 'Undo “Add track Music”']], $this->call('GET', "/api/projects/{$project}/changes?from=2")['others']);
        self::assertSame(2, $this->step('POST', $project, 'redo')['revision']);
    }

    public function testUndoOnAnOutdatedStateWouldMeanSomethingElseAndIsRefused(): void
    {
        [$project, $ada, $ben] = $this->shared();
        $this->edit($project, self::track('music'));
        $this->signIn($ben);
        $this->edit($project, self::track('speech'));
        $this->signIn($ada);
        foreach ([['POST', 'undo', null], ['POST', 'redo', null], ['PUT', 'head', ['revision' => 1]]] as [$method, $step, $body]) {
            $problem = $this->step($method, $project, $step, $body, base: 2);
            self::assertSame([409, 'outdated', 3], [$this->statusCode(), $problem['code'], $problem['revision']]);
            self::assertStringContainsString('Ben changed the mix in the meantime', $problem['detail']);
        }
    }

    public function testAnEditOfWhatIsGoneIsSaidInWordsThatNameIt(): void
    {
        [$project, $ada, $ben] = $this->shared();
        $this->edit($project, self::track('music'));
        $this->signIn($ben);
        $this->edit($project, ['edit' => 'remove-track', 'track' => 'music']);
        $this->signIn($ada);
        $problem = $this->edit($project, ['edit' => 'ride', 'passes' => [['track' => 'music', 'mode' => 'write', 'start' => 0, 'stop' => 96_000, 'level' => [[0, -6, 1]]]]], base: 2);
        self::assertSame([409, 'outdated'], [$this->statusCode(), $problem['code']]);
        self::assertMatchesRegularExpression('/^Ben changed the mix in the meantime\. This track is not in the mix any more.*Not done: “.*Music.*”\.$/u', $problem['detail']);
    }

    public function testWhatWentWhileTheScreenHeardOfItIsNamedToo(): void
    {
        [$project, $ada, $ben] = $this->shared();
        $this->edit($project, self::track('music'));
        $this->signIn($ben);
        $this->edit($project, ['edit' => 'remove-track', 'track' => 'music']);
        $gone = ['edit' => 'set-fader', 'track' => 'music', 'fader' => -7];
        $this->edit($project, $gone);
        self::assertSame(422, $this->statusCode(), 'nobody else was at it');
        $this->signIn($ada);
        // News came during the drag: the screen shows a state without it by then.
        $problem = $this->edit($project, $gone);
        self::assertSame([409, 'outdated'], [$this->statusCode(), $problem['code']]);
        self::assertSame('Ben changed the mix in the meantime. This track is not in the mix any more: it was removed meanwhile. Not done: “Set Music to −7.0 dB”.', $problem['detail']);
        $never = $this->edit($project, ['track' => 'never'] + $gone);
        self::assertSame([422, 'This track is not in the mix any more: it was removed meanwhile.'], [$this->statusCode(), $never['detail']]);
    }

    public function testTwoWhoMoveOneKeyframeBothGetAnAnswerThatIsTrue(): void
    {
        [$project, $ada, $ben] = $this->shared();
        $source = $this->bringIn($project, 'tone.wav', self::media(4.0))['id'];
        $this->edit($project, self::track('music'));
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'music', 'clip' => 'c', 'source' => $source, 'at' => 0]);
        $base = $this->edit($project, ['edit' => 'add-keyframe', 'clip' => 'c', 'at' => 48_000, 'level' => -3])['revision'];
        $this->edit($project, ['edit' => 'set-keyframe', 'clip' => 'c', 'keyframe' => 48_000, 'at' => 60_000], base: $base);
        $this->signIn($ben);
        $problem = $this->edit($project, ['edit' => 'set-keyframe', 'clip' => 'c', 'keyframe' => 48_000, 'at' => 70_000], base: $base);
        self::assertSame(409, $this->statusCode());
        self::assertStringContainsString('Ada changed the mix', $problem['detail']);
        self::assertSame([60_000], array_column($this->call('GET', "/api/projects/{$project}/changes?from={$base}")['changes']['changedClips'][0]['curve'], 'at'));
    }

    public function testOnceMeansOnce(): void
    {
        [$project] = $this->shared();
        $source = $this->bringIn($project, 'tone.wav', self::media(2.0))['id'];
        $this->edit($project, self::track('music'));
        $base = $this->edit($project, ['edit' => 'add-clip', 'track' => 'music', 'clip' => 'c', 'source' => $source, 'at' => 0])['revision'];
        $change = ['edit' => 'change-clip-gain', 'clips' => ['c'], 'by' => -3];
        $send = fn (array $body, string $key, int $base): array => $this->call('POST', "/api/projects/{$project}/edits", $body, ['If-Match' => "\"{$base}\"", 'Idempotency-Key' => $key]);
        $first = $send($change, 'the-first-key', $base);
        $again = $send($change, 'the-first-key', $base);
        self::assertSame(200, $this->statusCode());
        self::assertEquals($first, $again);
        self::assertEquals(-3, $again['changes']['placedClips'][0]['gain'], 'sent twice, applied once');
        $send($change, 'the-other-key', $first['revision']);
        $late = $send($change, 'the-first-key', $first['revision']);
        self::assertEquals(-6, $late['changes']['placedClips'][0]['gain'], 'a late repetition leads to the present');

        $problem = $send(['edit' => 'change-clip-gain', 'clips' => ['c'], 'by' => -4], 'the-first-key', $first['revision']);
        self::assertSame(422, $this->statusCode());
        self::assertStringContainsString('already used', $problem['detail']);
        $send($change, 'no', 1);
        self::assertSame(400, $this->statusCode());

        // A refused one has done nothing, and is tried again.
        $send(['edit' => 'rename-track', 'track' => 'speech', 'name' => 'Voice'], 'a-refused-one', $late['revision']);
        self::assertSame(422, $this->statusCode());
        $now = $this->edit($project, self::track('speech'))['revision'];
        $send(['edit' => 'rename-track', 'track' => 'speech', 'name' => 'Voice'], 'a-refused-one', $now);
        self::assertSame(200, $this->statusCode());
    }

    public function testBeginRenderUndoAndInvitationsAreDoneOnceToo(): void
    {
        $this->signedIn();
        $key = ['Idempotency-Key' => 'begin-0000'];
        $ids = array_map(fn (): string => $this->call('POST', '/api/projects', ['name' => 'Once'], $key)['id'], [1, 2]);
        self::assertSame($ids[0], $ids[1]);
        $project = $ids[0];
        $source = $this->bringIn($project, 'tone.wav', self::media(1.0))['id'];
        $this->edit($project, self::track('music'));
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'music', 'clip' => 'c', 'source' => $source, 'at' => 0]);
        $renders = array_map(fn (): string => $this->call('POST', "/api/projects/{$project}/deliveries", ['format' => 'pcm16'], ['Idempotency-Key' => 'render-0000'])['id'], [1, 2]);
        self::assertSame($renders[0], $renders[1]);
        self::assertCount(1, $this->call('GET', "/api/projects/{$project}/deliveries")['deliveries']);
        $undone = array_map(fn (): array => $this->call('POST', "/api/projects/{$project}/undo", null, ['If-Match' => '"3"', 'Idempotency-Key' => 'undo-00000']), [1, 2]);
        self::assertSame([2, 2], array_column($undone, 'revision'), 'two answers, one step back');
        $invited = array_map(fn (): string => $this->call('POST', "/api/projects/{$project}/invitations", ['email' => 'twice@wattage.example', 'role' => 'viewer'], ['Idempotency-Key' => 'invite-0000'])['id'], [1, 2]);
        self::assertSame($invited[0], $invited[1]);
    }

    /** The contract as a property: whatever was done, any revision rebuilt from what is stored is what was answered when it was made. */
    public function testAnyRevisionOfARandomHistoryIsRebuiltAsItWasAnswered(): void
    {
        [$project, $ada] = $this->shared();
        $source = $this->bringIn($project, 'tone.wav', self::media(30.0))['id'];
        $this->edit($project, self::track('music'));
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'music', 'clip' => 'c', 'source' => $source, 'at' => 0]);
        $this->edit($project, ['edit' => 'set-captions', 'text' => implode("\n", array_map(static fn (int $i): string => \sprintf("%d\n00:00:%02d,000 --> 00:00:%02d,500\nA line that is said at %d\n", $i + 1, $i % 60, $i % 60, $i), range(0, 59)))]);
        $random = new Random(7);
        $screen = $this->call('GET', "/api/projects/{$project}/mix");
        $states = [$screen['revision'] => $screen['mix']];
        for ($i = 0; $i < 220; ++$i) {
            $at = $random->int(0, 25 * 48_000);
            $base = $screen['revision'];
            $step = match ($random->int(0, 9)) {
                0, 1 => $this->step('POST', $project, 'undo', base: $base),
                2 => $this->step('POST', $project, 'redo', base: $base),
                3 => $this->step('PUT', $project, 'head', ['revision' => array_keys($states)[$random->int(0, \count($states) - 1)]], base: $base),
                4 => $this->edit($project, ['edit' => 'set-fader', 'track' => 'music', 'fader' => $random->int(-300, 60) / 10], $base),
                5 => $this->edit($project, ['edit' => 'add-marker', 'marker' => "m{$i}", 'at' => $at, 'name' => "Mark {$i}"], $base),
                default => $this->edit($project, ['edit' => 'dip-range', 'clips' => ['c'], 'from' => $at, 'to' => $at + $random->int(9600, 96_000), 'by' => -$random->int(10, 90) / 10, 'ramp' => 2400], $base),
            };
            self::assertSame(200, $this->statusCode(), json_encode($step, \JSON_THROW_ON_ERROR));
            self::assertSame($base, $step['from']);
            $screen = ['revision' => $step['revision'], 'mix' => self::after($screen['mix'], $step['changes'])];
            self::assertEquals($states[$screen['revision']] ?? $screen['mix'], $screen['mix'], 'a state is the same however one comes to it');
            $states[$screen['revision']] = $screen['mix'];
        }
        $cache = static::getContainer()->get('cache.app');
        self::assertInstanceOf(CacheItemPoolInterface::class, $cache);
        $cache->clear();
        $this->entities()->clear();
        foreach ($states as $number => $mix) {
            self::assertEquals($mix, $this->call('GET', "/api/projects/{$project}/revisions/{$number}/mix")['mix'], "revision {$number}");
        }
        /** @var array{whole: int, parts: int, bytes: int}|false $stored */
        $stored = $this->entities()->getConnection()->fetchAssociative('SELECT count(mix) AS whole, count(difference) AS part, sum(length(mix::text)) AS bytes, sum(length(difference::text)) AS parts FROM revision WHERE project_id = ?', [$project]);
        self::assertIsArray($stored);
        self::assertGreaterThan(1, $stored['whole'], 'whole states are kept now and then');
        self::assertLessThan(2 * $stored['parts'] + 40_000, $stored['bytes'], 'and never weigh much more than what happened');
    }

    public function testWhoIsThereAndWhatTheyHoldIsSeenByMembersOnly(): void
    {
        [$project, $ada, $ben] = $this->shared();
        $screens = ['01234567-89ab-7def-8123-00000000000a', '01234567-89ab-7def-8123-00000000000b'];
        self::assertSame([], $this->call('PUT', "/api/projects/{$project}/presence/{$screens[0]}", [])['people']);
        $this->signIn($ben);
        $seen = $this->call('PUT', "/api/projects/{$project}/presence/{$screens[1]}", ['holds' => 'clip:c']);
        self::assertSame([['Ada', null]], array_map(static fn (array $p): array => [$p['name'], $p['holds']], $seen['people']));
        $this->signIn($ada);
        self::assertSame(['clip:c'], array_column($this->call('PUT', "/api/projects/{$project}/presence/{$screens[0]}", [])['people'], 'holds'));
        $this->call('PUT', "/api/projects/{$project}/presence/{$screens[0]}", ['holds' => '<b>x</b>']);
        self::assertSame(422, $this->statusCode());
        $this->signIn($ben);
        $this->call('DELETE', "/api/projects/{$project}/presence/{$screens[1]}");
        $this->signIn($ada);
        self::assertSame([], $this->call('PUT', "/api/projects/{$project}/presence/{$screens[0]}", [])['people']);
    }

    public function testHistoryGoesBackToTheFirstEditAPartAtATime(): void
    {
        [$project, $ada] = $this->shared();
        $history = self::service(History::class);
        $entity = $this->entities()->find(\Wattage\App\Entity\Project::class, $project);
        $author = $this->entities()->find(User::class, $ada->id);
        self::assertNotNull($entity);
        self::assertNotNull($author);
        for ($i = 0; $i < 620; ++$i) {
            $history->edit($entity, $author, $entity->head, ['edit' => 'add-marker', 'marker' => "m{$i}", 'at' => 100 * $i, 'name' => "Mark {$i}"]);
        }
        for ($i = 0; $i < 560; ++$i) {
            $history->undo($entity, $author, $entity->head);
        }
        $part = $this->call('GET', "/api/projects/{$project}/history");
        self::assertContains($part['head'], array_column($part['revisions'], 'number'), 'the present is in its own list');
        $this->step('PUT', $project, 'head', ['revision' => 621]);
        $part = $this->call('GET', "/api/projects/{$project}/history");
        self::assertSame([500, true], [\count($part['revisions']), $part['more']]);
        $oldest = \array_slice($part['revisions'], -1)[0]['number'];
        $rest = $this->call('GET', "/api/projects/{$project}/history?before={$oldest}");
        self::assertSame([1, false], [\array_slice($rest['revisions'], -1)[0]['number'], $rest['more']]);
        self::assertSame([621, 620], array_column($this->call('GET', "/api/projects/{$project}/history?after=619")['revisions'], 'number'));
    }

    /**
     * What a screen shows after an answer, as the screen works it out.
     *
     * @param array{tracks: list<array{id: string}>, clips: list<array{id: string}>} $mix
     * @param array{removedClips: list<string>, changedClips: list<array{id: string}>, placedClips: list<array{id: string}>, changedTracks: list<array{id: string}>, order?: ?list<string>} $changes
     *
     * @return array{tracks: list<array{id: string}>, clips: list<array{id: string}>}
     */
    private static function after(array $mix, array $changes): array
    {
        $clips = array_column($mix['clips'], null, 'id');
        foreach ($changes['removedClips'] as $id) {
            unset($clips[$id]);
        }
        foreach ($changes['changedClips'] as $clip) {
            $clips[$clip['id']] = $clip;
        }
        foreach ($changes['placedClips'] as $placed) {
            $clips[$placed['id']] = [...$clips[$placed['id']], ...$placed];
        }

        $tracks = [...array_column($mix['tracks'], null, 'id'), ...array_column($changes['changedTracks'], null, 'id')];
        $order = $changes['order'] ?? array_column($mix['tracks'], 'id');
        $parts = array_diff_key($changes, array_flip(['changedClips', 'placedClips', 'removedClips', 'changedTracks', 'order']));

        return [...$mix, ...$parts, 'clips' => array_values($clips), 'tracks' => array_map(static fn (string $id): array => $tracks[$id], $order)];
    }

    /** @return array{string, User, User} a project of Ada, who is signed in, and Ben */
    private function shared(): array
    {
        $ada = $this->user('Ada');
        $ben = $this->user('Ben');
        $this->signIn($ada);
        $project = $this->newProject();
        $this->share($project, $ben, Role::Editor);

        return [$project, $ada, $ben];
    }

    /** @return array<string, string> */
    private static function track(string $kind): array
    {
        return ['edit' => 'add-track', 'track' => $kind, 'name' => ucfirst($kind), 'stem' => $kind];
    }
}
