<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Wattage\App\Entity\Source;
use Wattage\Tests\support\Sound;

/** Files with a picture: their sound is ready first, the small picture follows. */
final class PictureTest extends ApiTestCase
{
    public function testASmallPictureIsMadeBehindTheSceneAndServedInPieces(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'crossing.mp4', self::film());
        self::assertSame(['ready', 'making'], [$source['state'], $source['picture']], $source['problem'] ?? '');
        $this->call('GET', "/api/sources/{$source['id']}/picture");
        self::assertSame(404, $this->statusCode(), 'not made yet');
        $this->work();
        self::assertSame('ready', $this->sourceNow($project, $source['id'])['picture']);

        $this->browser->request('GET', "/api/sources/{$source['id']}/picture");
        $whole = (string) $this->browser->getInternalResponse()->getContent();
        $found = Sound::probe(Sound::file($whole, '.webm'));
        self::assertSame([['video', 'vp8', 160, 50]], array_map(static fn (array $s): array => [$s['codec_type'], $s['codec_name'], $s['width'], (int) $s['nb_read_frames']], $found['streams']));
        foreach (['bytes=0-99' => [0, 100], 'bytes=100-' => [100, \strlen($whole) - 100], 'bytes=-50' => [\strlen($whole) - 50, 50]] as $range => [$from, $length]) {
            $this->browser->request('GET', "/api/sources/{$source['id']}/picture", server: ['HTTP_RANGE' => $range]);
            self::assertSame(206, $this->statusCode());
            self::assertSame(substr($whole, $from, $length), $this->browser->getInternalResponse()->getContent());
        }
        $this->browser->request('GET', "/api/sources/{$source['id']}/picture", server: ['HTTP_RANGE' => 'bytes=99999999-']);
        self::assertSame(416, $this->statusCode());
    }

    public function testAFileWhosePictureIsThereAlreadyHasItNotMadeAgain(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'crossing.mp4', self::film());
        $copy = $this->call('POST', "/api/projects/{$project}/copy", ['name' => 'Copied while it is made'])['id'];
        $this->work();
        $media = $this->entities()->find(Source::class, $source['id'])?->media;
        file_put_contents(self::storage()."/media/sources/{$media}/picture", 'the first one');
        $this->work();
        $copied = $this->call('GET', "/api/projects/{$copy}/sources")['sources'][0];
        self::assertSame('ready', $copied['picture']);
        $this->browser->request('GET', "/api/sources/{$copied['id']}/picture");
        self::assertTrue('the first one' === $this->browser->getInternalResponse()->getContent(), 'it was made again');
    }

    public function testItsFramesAndItsCutsAreThereForTheTimeline(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        // Three shots that move, of 5, 3 and 4 s; the last one is dark.
        $path = Sound::file('', '.mp4');
        Sound::run(['ffmpeg', '-v', 'error', '-f', 'lavfi', '-i', 'testsrc=size=160x90:rate=25:duration=5', '-f', 'lavfi', '-i', 'mandelbrot=size=160x90:rate=25', '-f', 'lavfi', '-i', 'gradients=size=160x90:rate=25:duration=4:c0=black:c1=navy', '-f', 'lavfi', '-i', 'sine=frequency=300:duration=12',
            '-filter_complex', '[1]trim=duration=3[m];[0][m][2]concat=n=3:v=1[v]', '-map', '[v]', '-map', '3:a', '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-y', $path]);
        $source = $this->bringIn($project, 'shots.mp4', (string) file_get_contents($path))['id'];
        self::assertNull($this->call('GET', "/api/sources/{$source}/cuts")['cuts'], 'not made yet');
        $this->work();
        self::assertSame([5 * 48_000, 8 * 48_000], $this->call('GET', "/api/sources/{$source}/cuts")['cuts']);
        $this->browser->request('GET', "/api/sources/{$source}/frames/0");
        $sheet = Sound::file((string) $this->browser->getInternalResponse()->getContent(), '.jpg');
        $size = Sound::probe($sheet)['streams'][0];
        self::assertSame([960, 540], [$size['width'], $size['height']]);
        self::assertGreaterThan(100, self::brightness($sheet, 0), 'a frame of the first shot');
        self::assertLessThan(60, self::brightness($sheet, 5), 'one of the dark shot, ten seconds in');
        $this->call('GET', "/api/sources/{$source}/frames/1");
        self::assertSame(404, $this->statusCode());
    }

    public function testASourceWithAPictureCarriesItIntoTheMixWhereItCanBeDetached(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'crossing.mp4', self::film())['id'];
        $this->edit($project, ['edit' => 'add-track', 'track' => 'p', 'name' => 'Picture sound', 'stem' => 'ambience']);
        $strip = $this->edit($project, ['edit' => 'add-clip', 'track' => 'p', 'clip' => 'guide', 'source' => $source, 'at' => 4800])['changes']['strip'];
        self::assertSame([4800, 0], [$strip[0]['at'], $strip[0]['in']]);
        $step = $this->edit($project, ['edit' => 'detach-picture', 'clips' => ['guide']]);
        self::assertCount(1, $step['changes']['pictures']);
        $step = $this->edit($project, ['edit' => 'remove-clips', 'clips' => ['guide']]);
        self::assertArrayNotHasKey('strip', $step['changes'], 'what is seen stays as it was');
    }

    /** @return float mean of a frame on a sheet, 0 to 255 */
    private static function brightness(string $sheet, int $frame): float
    {
        $grey = Sound::run(['ffmpeg', '-v', 'error', '-i', $sheet, '-vf', 'crop=96:54:'.(96 * $frame).':0', '-f', 'rawvideo', '-pix_fmt', 'gray', '-']);

        return array_sum(unpack('C*', $grey) ?: []) / \strlen($grey);
    }

    private static function film(): string
    {
        $path = Sound::file('', '.mp4');
        Sound::run(['ffmpeg', '-v', 'error', '-f', 'lavfi', '-i', 'testsrc=size=160x90:rate=25:duration=2', '-f', 'lavfi', '-i', 'sine=frequency=300:duration=2', '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-y', $path]);

        return (string) file_get_contents($path);
    }
}
