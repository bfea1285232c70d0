<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

/** Edits as requests: stored as revisions, undone, redone, refused, and safe against one another. */
final class MixTest extends ApiTestCase
{
    public function testAnEditIsStoredAndUndoAndRedoGoBackAndForth(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $answer = $this->edit($project, self::track('music'));
        self::assertSame(200, $this->statusCode());
        self::assertSame(['music'], $answer['changes']['order']);
        self::assertSame('Add track Music', $answer['label']);
        self::assertSame('"2"', $this->response()->headers->get('ETag'));
        self::assertTrue($answer['canUndo']);

        $undone = $this->step('POST', $project, 'undo');
        self::assertSame([[], 1, false, true], [$undone['changes']['order'], $undone['revision'], $undone['canUndo'], $undone['canRedo']]);
        self::assertSame(1, $this->step('POST', $project, 'undo')['revision'], 'the first state has none before it');
        self::assertSame(2, $this->step('POST', $project, 'redo')['revision']);
        self::assertSame(2, $this->step('POST', $project, 'redo')['revision']);
        self::assertSame(['music'], array_column($this->call('GET', "/api/projects/{$project}/mix")['mix']['tracks'], 'id'));
    }

    public function testAnEditAfterUndoBeginsAnotherLineAndTheOldOneIsKept(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $this->edit($project, self::track('music'));
        $this->step('POST', $project, 'undo');
        $this->edit($project, self::track('speech'));
        $history = $this->call('GET', "/api/projects/{$project}/history");
        self::assertSame([[3, 1], [2, 1], [1, null]], array_map(static fn (array $r): array => [$r['number'], $r['parent']], $history['revisions']), 'what was undone stays in the list');
        self::assertSame(['music'], $this->step('PUT', $project, 'head', ['revision' => 2])['changes']['order'], 'the other line can still be gone to');
    }

    public function testAnEditOnAnOlderStateIsAppliedWhereItStillMakesSense(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $this->edit($project, self::track('music'), base: 1);
        $answer = $this->edit($project, self::track('speech'), base: 1);
        self::assertSame(200, $this->statusCode());
        self::assertSame(['music', 'speech'], $answer['changes']['order'], 'no acknowledged edit is lost');

        $this->edit($project, ['edit' => 'remove-track', 'track' => 'music']);
        $problem = $this->edit($project, ['edit' => 'rename-track', 'track' => 'music', 'name' => 'Bed'], base: 3);
        self::assertSame([409, 'outdated', 'track', 4], [$this->statusCode(), $problem['code'], $problem['field'], $problem['revision']]);
    }

    public function testAnEditThatMakesNoSenseLeavesTheMixAloneAndNamesItsField(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $problem = $this->edit($project, ['edit' => 'set-fader', 'track' => 'gone', 'fader' => 0]);
        self::assertSame([422, 'track'], [$this->statusCode(), $problem['field']]);
        self::assertSame('application/problem+json', $this->response()->headers->get('Content-Type'));
        foreach (['{"edit":"set-fader","track":"x","fader":NaN}', '{"edit":"set-fader","track":"x","fader":1e999}', '[1]', 'x', ''] as $body) {
            $this->call('POST', "/api/projects/{$project}/edits", $body, ['If-Match' => '"1"']);
            self::assertContains($this->statusCode(), [400, 422], $body);
        }
        $this->call('POST', "/api/projects/{$project}/edits", self::track('music'));
        self::assertSame(428, $this->statusCode(), 'an edit names the state it was made on');
        self::assertSame(1, $this->call('GET', "/api/projects/{$project}/mix")['revision']);
    }

    public function testWhatIsTooLargeToReadIsRefusedBeforeItIsRead(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        foreach (['{"edit":"'.str_repeat('x', 8_000_000).'"}', '{"edit":['.str_repeat('[1],', 300_000).'1]}'] as $body) {
            $refused = $this->call('POST', "/api/projects/{$project}/edits", $body, ['If-Match' => '"1"']);
            self::assertSame(413, $this->statusCode());
            self::assertStringContainsString('8 MB at most, and 300,000 objects and lists', $refused['detail']);
        }
        $this->call('PATCH', "/api/projects/{$project}", '{"name":"'.str_repeat('x', 2_000_000).'"}');
        self::assertSame(413, $this->statusCode(), 'anything else');
    }

    public function testTheGainScheduleComesWithTheClipAndFollowsTheSource(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'tone.wav', self::media(4.0))['id'];
        $this->edit($project, self::track('music'));
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'music', 'clip' => 'c', 'source' => $source, 'at' => 0]);
        $clip = $this->edit($project, ['edit' => 'dip-range', 'clips' => ['c'], 'from' => '0:01', 'to' => '0:02', 'by' => -11, 'ramp' => 4800])['changes']['changedClips'][0];
        self::assertCount(4, $clip['curve']);
        self::assertSame([0, 43_200, 45_600, 48_000, 96_000, 98_400, 100_800], array_column($clip['schedule'], 'from'));
        self::assertSame([-11, 0], $clip['schedule'][3]['db']);
        $after = $this->edit($project, ['edit' => 'set-source-gain', 'source' => $source, 'gain' => -6])['changes'];
        self::assertSame([[], -6], [$after['changedClips'], $after['placedClips'][0]['level']], 'a source’s gain is heard in all its clips, and nothing else is sent again');
        $this->edit($project, self::track('speech'));
        self::assertSame([], $this->edit($project, ['edit' => 'set-fader', 'track' => 'music', 'fader' => -3])['changes']['changedClips'], 'only what changed is sent');
    }

    public function testProjectsAreRenamedDeletedAndBroughtBack(): void
    {
        $this->signedIn();
        $project = $this->newProject('Crossing <b>');
        $this->call('PATCH', "/api/projects/{$project}", ['name' => 'Tide']);
        self::assertNotNull($this->call('DELETE', "/api/projects/{$project}")['deletedAt']);
        $this->call('GET', "/api/projects/{$project}/mix");
        self::assertSame(404, $this->statusCode());
        $this->call('POST', "/api/projects/{$project}/restore");
        self::assertSame(['Tide'], array_column($this->call('GET', '/api/projects')['projects'], 'name'));
        $this->call('GET', "/api/projects/{$project}/mix");
        self::assertSame(200, $this->statusCode());
        self::assertSame('name', $this->call('POST', '/api/projects', ['name' => str_repeat('x', 300)])['field']);
        self::assertSame('frameRate', $this->call('POST', '/api/projects', ['name' => 'x', 'frameRate' => '26'])['field']);
    }

    public function testEachSeesOnlyTheirOwnProjects(): void
    {
        $this->signedIn();
        $this->newProject('Hers');
        $this->signIn($this->user('Ben'));
        self::assertSame([], $this->call('GET', '/api/projects')['projects']);
    }

    /** @return array<string, string> */
    private static function track(string $kind): array
    {
        return ['edit' => 'add-track', 'track' => $kind, 'name' => ucfirst($kind), 'stem' => $kind];
    }
}
