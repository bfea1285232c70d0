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
        self::assertSame([['guest.wav', 1, 2.0], ['wind.wav', 2, 4.0]], array_map(array_values(...), array_map(static fn (array $m): array => [...$m, 'seconds' => (float) $m['seconds']], $found['missing'])));
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
        self::assertSame([[0, 100, 96_000], [90_000, 0, 48_000]], array_map(static fn (array $c): array => [$c['at'], $c['in'], $c['length']], $found['edit']['tracks'][0]['clips']));
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
        foreach (['nothing' => 'cannot be read', '{}' => 'not an OpenTimelineIO file', str_repeat('[', 500) => 'too deeply'] as $text => $said) {
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
        $time = static fn (int $value): array => ['OTIO_SCHEMA' => 'RationalTime.1', 'value' => $value, 'rate' => 25];
        $clip = static fn (array $c): array => ['OTIO_SCHEMA' => 'Clip.2', 'name' => $c[0], 'source_range' => ['OTIO_SCHEMA' => 'TimeRange.1', 'start_time' => $time($c[1]), 'duration' => $time($c[2])], 'media_references' => ['DEFAULT_MEDIA' => ['OTIO_SCHEMA' => 'ExternalReference.1', 'target_url' => "file:///cut/{$c[0]}"]]];

        return ['OTIO_SCHEMA' => 'Timeline.1', 'name' => 'Reel', 'tracks' => ['OTIO_SCHEMA' => 'Stack.1', 'children' => array_map(static fn (array $t): array => ['OTIO_SCHEMA' => 'Track.1', 'kind' => 'Audio', 'name' => $t[0], 'children' => array_map($clip, $t[1])], $tracks)]];
    }
}
