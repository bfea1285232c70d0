<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Wattage\App\Entity\Role;

/** A copy of a project begins as it is now, sounds from the same files, and goes its own way. */
final class ProjectCopyTest extends ApiTestCase
{
    public function testACopySoundsTheSameAndGoesItsOwnWay(): void
    {
        $this->signedIn();
        [$project, $source] = $this->project();
        $copy = $this->call('POST', "/api/projects/{$project}/copy", ['name' => 'Second cut'])['id'];
        self::assertSame(201, $this->statusCode());
        $opened = $this->call('GET', "/api/projects/{$copy}/mix");
        self::assertSame(['Second cut', 'owner'], [$opened['project']['name'], $opened['project']['role']]);
        self::assertSame(-7, $opened['mix']['clips'][0]['gain']);
        $own = $opened['mix']['clips'][0]['source'];
        self::assertNotSame($source, $own);
        self::assertSame('ready', $this->sourceNow($copy, $own)['state']);
        $this->browser->request('GET', "/api/sources/{$source}/segments/0");
        $theirs = $this->browser->getInternalResponse()->getContent();
        $this->browser->request('GET', "/api/sources/{$own}/segments/0");
        self::assertSame($theirs, $this->browser->getInternalResponse()->getContent());

        $this->edit($copy, ['edit' => 'set-clip-gain', 'clips' => ['c'], 'gain' => 3]);
        self::assertSame(-7, $this->call('GET', "/api/projects/{$project}/mix")['mix']['clips'][0]['gain']);
    }

    public function testFilesStayAsLongAsOneOfTheTwoNeedsThem(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'tone.wav', self::media(1.0))['id'];
        $copy = $this->call('POST', "/api/projects/{$project}/copy", ['name' => 'Copy'])['id'];
        $own = $this->call('GET', "/api/projects/{$copy}/sources")['sources'][0]['id'];
        $this->call('DELETE', "/api/sources/{$source}");
        self::assertSame(204, $this->statusCode());
        $this->call('GET', "/api/sources/{$own}/segments/0");
        self::assertSame(200, $this->statusCode());
        $this->call('DELETE', "/api/sources/{$own}");
        self::assertSame(204, $this->statusCode());
        self::assertSame([], glob(self::storage()."/sources/{$source}/*") ?: []);
    }

    public function testAViewerOwnsTheCopyAndNothingElse(): void
    {
        $this->signedIn();
        [$project] = $this->project();
        $viewer = $this->user('viewer@ferry.example');
        $this->share($project, $viewer, Role::Viewer);
        $this->signIn($viewer);
        self::assertSame('owner', $this->call('POST', "/api/projects/{$project}/copy", ['name' => 'Mine'])['role']);
    }

    public function testWhatIsMeasuredIsWhatIsHeardAndWhatAnEditWouldMakeOfIt(): void
    {
        $this->signedIn();
        [$project] = $this->project();
        $measure = fn (array $more = []): array => $this->call('POST', "/api/projects/{$project}/measure", ['clips' => ['c'], ...$more]);
        $now = $measure();
        self::assertEqualsWithDelta(-21.07 - 7.0, $now['peak'], 0.1);
        $this->edit($project, ['edit' => 'set-fader', 'track' => 'm', 'fader' => -3]);
        self::assertEqualsWithDelta($now['average'] - 3.0, $measure()['average'], 0.02);
        $tried = $measure(['edit' => ['edit' => 'dip-range', 'clips' => ['c'], 'from' => 48_000, 'to' => 96_000, 'by' => 6, 'ramp' => 0], 'from' => 48_000, 'to' => 96_000]);
        self::assertEqualsWithDelta($now['loudness'] - 3.0 + 6.0, $tried['loudness'], 0.1);
        self::assertEqualsWithDelta($now['peak'] - 3.0, $measure()['peak'], 0.05, 'and nothing was kept');
        self::assertSame([null, null, null], \array_slice(array_values($measure(['from' => 480_000, 'to' => 960_000])), 0, 3));
    }

    /** @return array{string, string} project and source: a tone of 3 s on a track, 7 dB softer */
    private function project(): array
    {
        $project = $this->newProject();
        $source = $this->bringIn($project, 'tone.wav', self::media(3.0))['id'];
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'stem' => 'music', 'clip' => 'c', 'source' => $source, 'at' => 0]);
        $this->edit($project, ['edit' => 'set-clip-gain', 'clips' => ['c'], 'gain' => -7]);

        return [$project, $source];
    }
}
