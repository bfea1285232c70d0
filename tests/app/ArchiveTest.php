<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Closure;
use LogicException;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;
use Wattage\Tests\support\Sound;
use ZipArchive;

/** A whole project as one file, and from it a project again. */
final class ArchiveTest extends ApiTestCase
{
    public function testAProjectGoesOutWithAllThatIsInItAndComesInAgainTheSame(): void
    {
        $this->signedIn();
        $project = $this->newProject('Salt ferry');
        $voice = $this->bringIn($project, 'voice: take 2.wav', self::media(3.0, 1))['id'];
        $bed = $this->bringIn($project, 'bed.flac', self::media(4.0, format: 'flac'))['id'];
        $this->edit($project, ['edit' => 'add-clip', 'track' => 't', 'clip' => 'c', 'source' => $voice, 'at' => 4800, 'in' => 100, 'length' => 96_000, 'stem' => 'speech', 'name' => 'Voice']);
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'b', 'clip' => 'd', 'source' => $bed, 'at' => 0, 'stem' => 'music', 'name' => 'Bed']);
        $this->edit($project, ['edit' => 'set-locked', 'track' => 'b', 'locked' => true]);
        $this->call('POST', "/api/projects/{$project}/snapshots", ['name' => 'Before levels']);
        self::assertSame(201, $this->statusCode());
        $this->edit($project, ['edit' => 'set-locked', 'track' => 'b', 'locked' => false]);
        $this->edit($project, ['edit' => 'set-clip-gain', 'clips' => ['d'], 'gain' => -9]);
        $this->edit($project, ['edit' => 'add-keyframe', 'clip' => 'c', 'at' => 48_000, 'level' => -4.25]);
        $this->edit($project, ['edit' => 'set-captions', 'text' => "1\n00:00:00,500 --> 00:00:01,500\nThe ferry waits.\n"]);
        $archive = $this->archiveOf($project);
        $file = Sound::file($archive, '.zip');
        $list = Sound::run(['unzip', '-Z1', $file]);
        self::assertSame(['captions.vtt', 'media/001 voice- take 2.wav', 'media/002 bed.flac', 'mix.json', 'project.json', 'snapshots/001.json'], self::sorted(explode("\n", trim($list))));
        self::assertSame(hash('sha256', self::media(4.0, format: 'flac')), hash('sha256', Sound::run(['unzip', '-p', $file, 'media/002 bed.flac'])));

        $other = $this->newProject('Again');
        $this->bringIn($other, 'salt-ferry.zip', $archive);
        $sources = array_column($this->call('GET', "/api/projects/{$other}/sources")['sources'], null, 'name');
        self::assertSame(['bed.flac', 'voice: take 2.wav'], self::sorted(array_keys($sources)));
        self::assertSame(['ready', 'ready'], array_column($sources, 'state'));
        $mixes = array_map(fn (string $id): array => $this->call('GET', "/api/projects/{$id}/mix.json"), [$project, $other]);
        $back = strtr((string) json_encode($mixes[1], \JSON_PRESERVE_ZERO_FRACTION), [$sources['bed.flac']['id'] => $bed, $sources['voice: take 2.wav']['id'] => $voice]);
        self::assertSame($mixes[0], json_decode($back, true));
        self::assertSame(['Before levels'], array_column($this->call('GET', "/api/projects/{$other}/snapshots")['snapshots'], 'name'));
        $this->step('POST', $other, 'undo');
        self::assertSame(200, $this->statusCode());

        $this->bringIn($project, 'salt-ferry.zip', $archive);
        self::assertStringContainsString('there is a mix in this project already', implode('', array_column($this->call('GET', "/api/projects/{$project}/sources")['sources'], 'problem')));
    }

    public function testTheDemoComesBackWithAllItsVersions(): void
    {
        $user = $this->signedIn();
        (new CommandTester((new Application(static::$kernel ?? throw new LogicException()))->find('wattage:demo')))->execute(['email' => $user->email]);
        $demo = $this->call('GET', '/api/projects')['projects'][0]['id'];
        $archive = $this->archiveOf($demo);
        $other = $this->newProject('Again');
        $this->bringIn($other, 'ferry.zip', $archive, 1 << 20);
        self::assertSame([], array_filter(array_column($this->call('GET', "/api/projects/{$other}/sources")['sources'], 'problem')));
        [$a, $b] = array_map(fn (string $id): array => $this->call('GET', "/api/projects/{$id}/mix")['mix'], [$demo, $other]);
        self::assertSame(array_map(static fn (array $t): array => [$t['name'], $t['stem']], $a['tracks']), array_map(static fn (array $t): array => [$t['name'], $t['stem']], $b['tracks']));
        self::assertSame(array_map(static fn (array $c): array => [$c['track'], $c['at']], $a['clips']), array_map(static fn (array $c): array => [$c['track'], $c['at']], $b['clips']));
        self::assertSame(\count($this->call('GET', "/api/projects/{$demo}/snapshots")['snapshots']), \count($this->call('GET', "/api/projects/{$other}/snapshots")['snapshots']));
    }

    public function testABundleOfOpenTimelineIoIsLaidWithItsMedia(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $time = static fn (int $value): array => ['OTIO_SCHEMA' => 'RationalTime.1', 'value' => $value, 'rate' => 25];
        $clip = ['OTIO_SCHEMA' => 'Clip.2', 'name' => 'Host', 'source_range' => ['OTIO_SCHEMA' => 'TimeRange.1', 'start_time' => $time(10), 'duration' => $time(50)], 'media_references' => ['DEFAULT_MEDIA' => ['OTIO_SCHEMA' => 'ExternalReference.1', 'target_url' => 'media/host.wav']]];
        $otio = ['OTIO_SCHEMA' => 'Timeline.1', 'name' => 'Reel', 'tracks' => ['OTIO_SCHEMA' => 'Stack.1', 'children' => [['OTIO_SCHEMA' => 'Track.1', 'kind' => 'Audio', 'name' => 'Dialogue', 'children' => [$clip]]]]];
        $this->bringIn($project, 'reel.otioz', self::zip(['version.txt' => '1.0.0', 'content.otio' => (string) json_encode($otio), 'media/host.wav' => self::media(3.0, 1)]));
        $mix = $this->call('GET', "/api/projects/{$project}/mix")['mix'];
        self::assertSame([['host.wav', 0, 19_200, 96_000]], array_map(fn (array $c): array => [$this->sourceNow($project, $c['source'])['name'], $c['at'], $c['in'], $c['length']], $mix['clips']));
    }

    /** @param Closure(): string $bytes */
    #[DataProvider('hostile')]
    public function testHostileArchivesAreRefusedAndLeaveNothing(Closure $bytes, string $says): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'x.zip', $bytes());
        self::assertSame('refused', $source['state']);
        self::assertStringContainsString($says, $source['problem']);
        self::assertStringContainsString('“x.zip”', $source['problem']);
        $mix = $this->call('GET', "/api/projects/{$project}/mix");
        self::assertSame([1, []], [$mix['revision'], $mix['mix']['tracks']]);
        $this->call('DELETE', "/api/sources/{$source['id']}");
        self::assertSame(0, \count($this->call('GET', "/api/projects/{$project}/sources")['sources']));
    }

    /**
     * @param array<string, mixed> $part
     * @param array<string, string> $more
     *
     * @return array<string, string> files of an archive that nothing is wrong with
     */
    private static function project(array $part = [], array $more = []): array
    {
        return [
            'project.json' => (string) json_encode([...['format' => 'wattage-project', 'version' => 1, 'name' => 'X', 'sources' => [], 'snapshots' => []], ...$part]),
            'mix.json' => '{"format":"wattage-mix","version":1,"rate":48000,"frameRate":"25","sources":[],"tracks":[]}',
            ...$more,
        ];
    }

    /** @return iterable<string, array{Closure(): string, string}> */
    public static function hostile(): iterable
    {
        $project = self::project(...);
        $voice = ['id' => 'a', 'name' => 'a.wav', 'file' => 'media/a.wav', 'sha256' => str_repeat('0', 64)];
        $past = static fn (): array => $project(['sources' => [[...$voice, 'sha256' => hash('sha256', self::media(1.0, 1))]]], ['media/a.wav' => self::media(1.0, 1), 'mix.json' => '{"format":"wattage-mix","version":1,"rate":48000,"frameRate":"25","sources":[{"id":"a","name":"A","length":900000,"channels":1,"gain":0}],"tracks":[{"id":"t","name":"T","stem":"speech","clips":[{"id":"c","source":"a","name":"C","at":0,"in":0,"length":800000}]}]}']);
        yield 'a path that leads out' => [static fn (): string => self::zip($project([], ['../../etc/cron.d/x' => 'x'])), 'names in it lead out of it'];
        yield 'an absolute path' => [static fn (): string => self::zip($project([], ['/etc/passwd' => 'x'])), 'names in it lead out of it'];
        yield 'a link' => [static fn (): string => self::zip($project([], ['media/a.wav' => '/etc/passwd']), static fn (ZipArchive $zip): bool => $zip->setExternalAttributesName('media/a.wav', ZipArchive::OPSYS_UNIX, 0o120777 << 16)), 'there are links in it'];
        yield 'a secret' => [static fn (): string => self::zip($project(), static fn (ZipArchive $zip): bool => $zip->setEncryptionName('mix.json', ZipArchive::EM_AES_256, 'x')), 'it is encrypted'];
        yield 'six thousand files' => [static fn (): string => self::zip($project([], array_fill_keys(array_map(static fn (int $i): string => "media/{$i}", range(1, 6000)), ''))), 'more than 5000 files'];
        yield 'cut off' => [static fn (): string => substr(self::zip($project()), 0, -40), 'it is damaged'];
        yield 'nothing of ours' => [static fn (): string => self::zip(['readme.txt' => 'Hello']), 'neither a project from here nor a bundle'];
        yield 'of another time' => [static fn (): string => self::zip($project(['version' => 7])), 'a newer version'];
        yield 'a file that is missing' => [static fn (): string => self::zip($project(['sources' => [$voice]])), '“media/a.wav” is missing from it'];
        yield 'a file that is another' => [static fn (): string => self::zip($project(['sources' => [$voice]], ['media/a.wav' => self::media(1.0, 1)])), '“a.wav” in it is damaged'];
        yield 'a file that is none' => [static fn (): string => self::zip($project(['sources' => [[...$voice, 'sha256' => hash('sha256', 'x')]]], ['media/a.wav' => 'x'])), 'x.zip'];
        yield 'a mix that is none' => [static fn (): string => self::zip($project([], ['mix.json' => '[1'])), '“mix.json” in it is damaged'];
        yield 'a clip past its source' => [static fn (): string => self::zip($past()), 'its mix is damaged'];
        yield 'a mix of half a million objects' => [static fn (): string => self::zip($project([], ['mix.json' => '['.str_repeat('{},', 500_000).'1]'])), '“mix.json” in it is too large'];
        yield 'a bomb' => [static fn (): string => self::bomb($project()), 'larger than it says'];
    }

    /**
     * An entry that gives more than it says: 40 MB of nothing, called ten bytes.
     *
     * @param array<string, string> $files
     */
    private static function bomb(array $files): string
    {
        $sources = [['id' => 'a', 'name' => 'a.wav', 'file' => 'media/a.wav', 'sha256' => str_repeat('0', 64)]];
        $files['project.json'] = (string) json_encode(['format' => 'wattage-project', 'version' => 1, 'name' => 'X', 'sources' => $sources, 'snapshots' => []]);
        $zip = self::zip([...$files, 'media/a.wav' => str_repeat("\0", 40_000_000)]);

        // Both in the entry's own header and in the directory (APPNOTE 4.3.7, 4.3.12).
        return str_replace(pack('V', 40_000_000), pack('V', 10), $zip);
    }

    private function archiveOf(string $project): string
    {
        $delivery = $this->call('POST', "/api/projects/{$project}/handovers", ['files' => [['format' => 'archive']], 'pattern' => '{project} r{revision}'])['deliveries'][0];
        $this->work(9);
        ob_start();
        $this->browser->request('GET', "/api/deliveries/{$delivery['id']}/file");
        $bytes = $this->browser->getInternalResponse()->getContent();
        ob_end_clean();
        self::assertSame(200, $this->statusCode(), substr($bytes, 0, 300));

        return $bytes;
    }

    /**
     * @param array<string, string> $files
     * @param ?Closure(ZipArchive): bool $change
     */
    private static function zip(array $files, ?Closure $change = null): string
    {
        $path = Sound::file('', '.zip');
        $zip = new ZipArchive();
        $zip->open($path, ZipArchive::OVERWRITE);
        foreach ($files as $name => $bytes) {
            $zip->addFromString($name, $bytes);
        }
        null === $change || $change($zip);
        $zip->close();

        return (string) file_get_contents($path);
    }

    /**
     * @param list<string> $names
     *
     * @return list<string>
     */
    private static function sorted(array $names): array
    {
        sort($names);

        return $names;
    }
}
