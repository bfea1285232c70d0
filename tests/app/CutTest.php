<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use LogicException;

/** A cut from elsewhere, laid with the sources that are here. */
final class CutTest extends ApiTestCase
{
    public function testWhatIsHereIsLaidInOneStepAndWhatIsMissingIsListed(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $voice = $this->bringIn($project, 'Host.wav', self::media(8.0, 1))['id'];
        $this->bringIn($project, 'theme.flac', self::media(4.0, format: 'flac'));
        $otio = self::otio([
            ['Dialogue', [['host.wav', 50, 100], ['guest.wav', 0, 50], ['HOST.WAV', 0, 25]]],
            ['MX_theme', [['theme.mp3', 0, 200]]],
            ['Wind', [['wind.wav', 0, 75], ['wind.wav', 0, 25]]],
        ]);
        $found = $this->call('POST', "/api/projects/{$project}/cut", $otio);
        self::assertSame([200, 'Reel', 3, 6, 3], [$this->statusCode(), $found['name'], $found['tracks'], $found['clips'], $found['found']]);
        self::assertSame([['guest.wav', 192_000, 1, 2.0], ['wind.wav', 0, 2, 4.0]], array_map(array_values(...), array_map(static fn (array $m): array => [...$m, 'seconds' => (float) $m['seconds']], $found['missing'])));
        self::assertSame(['“theme.flac” ends 4.0 s before its part in the cut does.'], $found['short']);

        $this->edit($project, $found['edit']);
        self::assertSame(200, $this->statusCode());
        $mix = $this->call('GET', "/api/projects/{$project}/mix")['mix'];
        self::assertSame([['Dialogue', 'speech'], ['MX_theme', 'music']], array_map(static fn (array $t): array => [$t['name'], $t['stem']], $mix['tracks']));
        $of = array_values(array_filter($mix['clips'], static fn (array $c): bool => $c['source'] === $voice));
        self::assertSame([[0, 96_000, 192_000], [288_000, 0, 48_000]], array_map(static fn (array $c): array => [$c['at'], $c['in'], $c['length']], $of));
        $this->step('POST', $project, 'undo');
        self::assertSame([], $this->call('GET', "/api/projects/{$project}/mix")['mix']['tracks'], 'one step');
    }

    public function testASourceIsFoundByTheNameOfItsFileWhateverTheMixCallsIt(): void
    {
        $user = $this->signedIn();
        (new \Symfony\Component\Console\Tester\CommandTester((new \Symfony\Bundle\FrameworkBundle\Console\Application(static::$kernel ?? throw new LogicException()))->find('wattage:demo')))->execute(['email' => $user->email]);
        $project = $this->call('GET', '/api/projects')['projects'][0]['id'];
        $found = $this->call('POST', "/api/projects/{$project}/cut", self::otio([['A', [['narrator.ogg', 0, 50], ['Narrator', 0, 50], ['deckhand-far-mic.wav', 0, 50]]]]));
        self::assertSame([3, []], [$found['found'], $found['missing']], 'another ending is another copy of the same');
    }

    public function testWhatGoesOutComesInAgainWhereItWas(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'Host one.wav', self::media(8.0, 1))['id'];
        foreach ([[0, 100, 96_000], [90_000, 0, 48_000]] as $i => [$at, $in, $length]) {
            $this->edit($project, ['edit' => 'add-clip', 'track' => 't', 'clip' => "c{$i}", 'source' => $source, 'at' => $at, 'in' => $in, 'length' => $length, 'stem' => 'speech', 'name' => 'Voice']);
        }
        $out = $this->call('GET', "/api/projects/{$project}/mix.otio");
        $found = $this->call('POST', "/api/projects/{$project}/cut", $out);
        self::assertSame([2, 2, []], [$found['clips'], $found['found'], $found['left']]);
        /** @var array{tracks: list<array{clips: list<array{at: int, in: int, length: int}>}>} $edit */
        $edit = $found['edit'];
        self::assertSame([[0, 100, 96_000], [90_000, 0, 48_000]], array_map(static fn (array $c): array => [$c['at'], $c['in'], $c['length']], $edit['tracks'][0]['clips']));
    }

    public function testAChangedCutComesInWithTheBalanceKeptAndInOneStep(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $this->bringIn($project, 'Host.wav', self::media(8.0, 1));
        $this->bringIn($project, 'Bell.wav', self::media(4.0, 1));
        $this->edit($project, $this->call('POST', "/api/projects/{$project}/cut", self::otio([['Dialogue', [['host.wav', 0, 50], ['host.wav', 100, 50]]]]))['edit']);
        $mix = $this->call('GET', "/api/projects/{$project}/mix")['mix'];
        $this->edit($project, ['edit' => 'set-clip-gain', 'clips' => [$mix['clips'][1]['id']], 'gain' => -7.5]);
        $found = $this->call('POST', "/api/projects/{$project}/cut", self::otio([['Dialogue', [['bell.wav', 0, 25], ['host.wav', 100, 50]]]]));
        [$version] = $found['versions'];
        self::assertSame([['Dialogue'], 1, ['new' => 1, 'gone' => 1, 'changed' => 0], [['name' => 'bell.wav', 'at' => 0]], [['name' => 'host.wav', 'at' => 0]]], [$version['tracks'], $version['kept'], $version['counts'], $version['new'], $version['gone']]);
        $this->edit($project, $version['edit']);
        self::assertSame(200, $this->statusCode());
        $clips = $this->call('GET', "/api/projects/{$project}/mix")['mix']['clips'];
        $kept = array_column($clips, null, 'id')[$mix['clips'][1]['id']];
        self::assertSame([2, 48_000, -7.5], [\count($clips), $kept['at'], (float) $kept['gain']]);
        $this->step('POST', $project, 'undo');
        self::assertSame(96_000, array_column($this->call('GET', "/api/projects/{$project}/mix")['mix']['clips'], null, 'id')[$mix['clips'][1]['id']]['at']);
    }

    public function testOurOwnCutCarriesTheWholeMixAlsoToAnotherProject(): void
    {
        $this->signedIn();
        [$project, $other] = [$this->newProject(), $this->newProject('Other')];
        foreach ([$project, $other] as $in) {
            $ids[] = $this->bringIn($in, 'Host one.wav', self::media(8.0, 1))['id'];
        }
        $this->edit($project, ['edit' => 'add-clip', 'track' => 't', 'clip' => 'c', 'source' => $ids[0], 'at' => 0, 'in' => 100, 'length' => 96_000, 'stem' => 'speech', 'name' => 'Voice']);
        $this->edit($project, ['edit' => 'add-keyframe', 'clip' => 'c', 'at' => 48_000, 'level' => -4.25]);
        $this->edit($project, ['edit' => 'set-fader', 'track' => 't', 'fader' => -2.5]);
        $whole = $this->call('POST', "/api/projects/{$other}/cut", $this->call('GET', "/api/projects/{$project}/mix.otio"))['whole'];
        $this->edit($other, $whole);
        self::assertSame(200, $this->statusCode());
        $mixes = array_map(fn (string $id): array => $this->call('GET', "/api/projects/{$id}/mix.json"), [$project, $other]);
        self::assertSame($mixes[0], json_decode(str_replace($ids[1], $ids[0], (string) json_encode($mixes[1], \JSON_PRESERVE_ZERO_FRACTION)), true));
        /** @var array<string, mixed> $forged */
        $forged = json_decode(str_replace($ids[1], $ids[0], (string) json_encode($whole)), true);
        $this->edit($other, $forged);
        self::assertSame(422, $this->statusCode(), 'a source of another project');
    }

    public function testAnEditDecisionListComesInAndGoesOut(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $this->bringIn($project, 'Host.wav', self::media(8.0, 1));
        $edl = "TITLE: Reel 4\nFCM: NON-DROP FRAME\n\n001  HOST     A     C        01:00:02:00 01:00:04:00 10:00:00:00 10:00:02:00\n* FROM CLIP NAME: HOST.WAV\n";
        $this->browser->request('POST', "/api/projects/{$project}/cut", server: ['HTTP_X-CSRF-TOKEN' => $this->call('GET', '/api/session')['csrf'], 'CONTENT_TYPE' => 'text/plain'], content: $edl);
        self::assertSame(200, $this->statusCode());
        /** @var array{edit: array<string, mixed>} $found */
        $found = json_decode((string) $this->response()->getContent(), true);
        $this->edit($project, $found['edit']);
        $clip = $this->call('GET', "/api/projects/{$project}/mix")['mix']['clips'][0];
        self::assertSame([0, 96_000, 96_000], [$clip['at'], $clip['in'], $clip['length']], 'its timecode begins at an hour');
        $this->browser->request('GET', "/api/projects/{$project}/mix.edl");
        self::assertStringContainsString('001  HOST     A     C        00:00:02:00 00:00:04:00 01:00:00:00 01:00:02:00', (string) $this->response()->getContent());
    }

    public function testSourcesOfAnotherProjectAreNotLaid(): void
    {
        $this->signedIn();
        $elsewhere = $this->newProject('Elsewhere');
        $source = $this->bringIn($elsewhere, 'host.wav', self::media(4.0, 1))['id'];
        $project = $this->newProject();
        $found = $this->call('POST', "/api/projects/{$project}/cut", self::otio([['A', [['host.wav', 0, 50]]]]));
        self::assertSame([0, null], [$found['found'], $found['edit']]);
        $this->edit($project, ['edit' => 'lay-cut', 'name' => 'Forged', 'tracks' => [['track' => 't', 'name' => 'T', 'stem' => 'speech', 'clips' => [['clip' => 'c', 'source' => $source, 'name' => 'C', 'at' => 0, 'in' => 0, 'length' => 100]]]]]);
        self::assertSame(422, $this->statusCode());
    }

    public function testWhatIsNoCutIsSaid(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        foreach (['nothing' => 'neither OpenTimelineIO nor an edit decision list', '{}' => 'not an OpenTimelineIO file', str_repeat('[', 500) => 'too deeply'] as $text => $said) {
            $this->browser->request('POST', "/api/projects/{$project}/cut", server: ['HTTP_X-CSRF-TOKEN' => $this->call('GET', '/api/session')['csrf'], 'CONTENT_TYPE' => 'application/json'], content: $text);
            self::assertSame(422, $this->statusCode());
            self::assertStringContainsString($said, (string) $this->response()->getContent());
        }
    }

    /**
     * @param list<array{string, list<array{string, int, int}>}> $tracks name, and of each clip its file, first frame and frames at 25 a second
     *
     * @return array<string, mixed>
     */
    private static function otio(array $tracks): array
    {
        return ['OTIO_SCHEMA' => 'Timeline.1', 'name' => 'Reel', 'tracks' => ['OTIO_SCHEMA' => 'Stack.1', 'children' => array_map(static fn (array $t): array => ['OTIO_SCHEMA' => 'Track.1', 'kind' => 'Audio', 'name' => $t[0], 'children' => array_map(self::clip(...), $t[1])], $tracks)]];
    }

    /**
     * @param array{string, int, int} $c
     *
     * @return array<string, mixed>
     */
    private static function clip(array $c): array
    {
        return ['OTIO_SCHEMA' => 'Clip.2', 'name' => $c[0], 'source_range' => ['OTIO_SCHEMA' => 'TimeRange.1', 'start_time' => self::time($c[1]), 'duration' => self::time($c[2])], 'media_references' => ['DEFAULT_MEDIA' => ['OTIO_SCHEMA' => 'ExternalReference.1', 'target_url' => "file:///cut/{$c[0]}"]]];
    }

    /** @return array<string, mixed> */
    private static function time(int $frames): array
    {
        return ['OTIO_SCHEMA' => 'RationalTime.1', 'value' => $frames, 'rate' => 25];
    }
}
