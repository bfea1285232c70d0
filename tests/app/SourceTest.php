<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Closure;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\User;
use Wattage\App\Project\Sources;
use Wattage\App\Storage\Store;
use Wattage\Tests\support\Sound;

/** Files from outside: what is taken, and how everything else is refused. */
final class SourceTest extends ApiTestCase
{
    /** @param list<string> $options */
    #[DataProvider('formats')]
    public function testEveryFormatIsTakenWhole(string $name, string $format, array $options, int $bits, float $tolerance): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, $name, self::mediaFile($format, $options, pathinfo($name, \PATHINFO_EXTENSION)));
        self::assertSame(['ready', null, 2], [$source['state'], $source['problem'], $source['channels']]);
        self::assertEqualsWithDelta(3 * 48_000, $source['frames'], $tolerance * 48_000);
        self::assertEqualsWithDelta(-21.07, $source['peakDbfs'], 0.6, 'ffmpeg’s sine source has an amplitude of 1/8, less 3 dB on each of two channels');
        self::assertSame($bits, $this->entities()->find(Source::class, $source['id'])?->bits);
    }

    /** @return iterable<string, array{string, string, list<string>, int, float}> */
    public static function formats(): iterable
    {
        $video = ['-f', 'lavfi', '-i', 'color=s=64x64:d=3', '-shortest'];
        yield 'WAV' => ['a.wav', 'wav', [], 16, 0.0];
        yield 'WAV 24 bit' => ['a.wav', 'wav', ['-c:a', 'pcm_s24le'], 24, 0.0];
        yield 'FLAC' => ['a.flac', 'flac', [], 16, 0.0];
        yield 'MP3' => ['a.mp3', 'mp3', [], 24, 0.06];
        yield 'AAC' => ['a.aac', 'adts', ['-c:a', 'aac'], 24, 0.06];
        yield 'M4A' => ['a.m4a', 'ipod', ['-c:a', 'aac'], 24, 0.06];
        yield 'Ogg Vorbis' => ['a.ogg', 'ogg', ['-c:a', 'libvorbis'], 24, 0.06];
        yield 'Ogg Opus' => ['a.opus', 'ogg', ['-c:a', 'libopus'], 24, 0.06];
        yield 'MP4 video' => ['a.mp4', 'mp4', [...$video, '-c:a', 'aac'], 24, 0.06];
        yield 'MKV video' => ['a.mkv', 'matroska', [...$video, '-c:a', 'flac'], 16, 0.06];
        yield 'WebM video' => ['a.webm', 'webm', [...$video, '-c:a', 'libopus'], 24, 0.06];
        yield 'MOV video' => ['a.mov', 'mov', [...$video, '-c:a', 'pcm_s16le'], 16, 0.06];
    }

    #[DataProvider('rates')]
    public function testOtherSampleRatesAreResampledToTheMixRate(int $rate, int $frames): void
    {
        $this->signedIn();
        $source = $this->bringIn($this->newProject(), 'odd.wav', self::media(2.0, rate: $rate));
        self::assertSame(['ready', $rate], [$source['state'], $source['fileRate']], (string) $source['problem']);
        self::assertEqualsWithDelta($frames, $source['frames'], 2);
    }

    /** @return iterable<array{int, int}> */
    public static function rates(): iterable
    {
        foreach ([8000, 11_025, 22_050, 44_100, 96_000, 192_000] as $rate) {
            yield "{$rate}" => [$rate, 96_000];
        }
    }

    /** @param Closure(): string $bytes */
    #[DataProvider('badFiles')]
    public function testABadFileIsRefusedByNameWithTheRemedyAndLeavesNothingBehind(Closure $bytes, string $says): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'take 3.wav', $bytes());
        $looked = 200 === $this->statusCode();
        $problem = $looked ? $source['problem'] : $source['detail'];
        self::assertStringContainsString('“take 3.wav”', $problem);
        self::assertStringContainsString($says, $problem);
        if ($looked) {
            self::assertSame('refused', $source['state']);
            $this->call('GET', "/api/sources/{$source['id']}/segments/0");
            self::assertSame(404, $this->statusCode());
            $this->edit($project, ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music']);
            $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'c', 'source' => $source['id'], 'at' => 0]);
            self::assertSame(422, $this->statusCode(), 'it cannot be placed');
            $this->call('DELETE', "/api/sources/{$source['id']}");
        }
        self::assertSame(0, $this->sourceCount($project));
        self::assertSame([], glob(self::storage().'/media/sources/'.($looked ? $source['id'] : 'none').'/*'));
    }

    /** @return iterable<string, array{Closure(): string, string}> */
    public static function badFiles(): iterable
    {
        $wav = static fn (int $channels): string => self::media(1.0, $channels);
        yield 'empty' => [static fn (): string => '', 'is empty'];
        yield 'text' => [static fn (): string => str_repeat("Dear editor,\n", 500), 'not an audio or video file'];
        yield 'noise' => [static fn (): string => Sound::noise(4, 100_000), 'not an audio or video file'];
        yield 'a picture' => [static fn (): string => Sound::run(['ffmpeg', '-v', 'error', '-f', 'lavfi', '-i', 'color=s=64x64:d=0.1', '-frames:v', '1', '-f', 'image2pipe', '-c:v', 'png', '-']), 'not an audio or video file'];
        yield 'forty channels' => [self::manyChannels(...), 'has 40 channels; at most 32'];
        yield 'no channels' => [static fn (): string => substr_replace($wav(2), pack('v', 0), 22, 2), 'not an audio'];
        yield 'rate too low' => [static fn (): string => self::media(1.0, rate: 4000), '4000 samples a second'];
        yield 'rate too high' => [static fn (): string => self::media(0.5, rate: 384_000), '384000 samples a second'];
        yield 'cut off in the middle' => [static fn (): string => substr(self::mediaFile('wav', [], 'wav'), 0, 60_000), 'is cut off'];
        yield 'FLAC cut off' => [static fn (): string => substr(self::mediaFile('flac', [], 'flac'), 0, 20_000), 'is cut off'];
        yield 'an index cut off' => [static fn (): string => substr(self::mediaFile('mp4', ['-c:a', 'aac'], 'mp4'), 0, 9000), 'damaged'];
        yield '100 hours claimed' => [self::hundredHours(...), 'hours'];
        yield 'a playlist' => [static fn (): string => "#EXTM3U\n#EXT-X-TARGETDURATION:9\n#EXTINF:9,\nfile:///etc/passwd\n#EXTINF:9,\nhttp://127.0.0.1:1/x.ts\n#EXT-X-ENDLIST\n", 'not an audio or video file'];
        yield 'a list of files' => [static fn (): string => "ffconcat version 1.0\nfile '/etc/hostname'\nfile '/etc/passwd'\n", 'not an audio or video file'];
        yield 'a reference to another file' => [self::referenceMovie(...), '“take 3.wav”'];
    }

    public function testTheNameIsKeptWithoutPathAndControlCharactersAreRefused(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        foreach (['../../etc/passwd' => 'passwd', 'C:\takes\one.wav' => 'one.wav', '/media/a<b>.wav' => 'a<b>.wav'] as $sent => $kept) {
            self::assertSame($kept, $this->call('POST', "/api/projects/{$project}/sources", ['name' => $sent, 'size' => 5])['name']);
        }
        foreach (["bell\x07.wav", "line\nbreak.wav", '', '..//', str_repeat('n', 250).'.wav', "\u{202E}gpj.wav"] as $bad) {
            $problem = $this->call('POST', "/api/projects/{$project}/sources", ['name' => $bad, 'size' => 5]);
            self::assertSame([422, 'name'], [$this->statusCode(), $problem['field']]);
        }
    }

    public function testTheSameFileTwiceIsToldApart(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $bytes = self::media(0.5);
        $this->bringIn($project, 'first.wav', $bytes);
        $second = $this->bringIn($project, 'second.wav', $bytes);
        self::assertSame('refused', $second['state']);
        self::assertStringContainsString('the same file as “first.wav”', $second['problem']);
        $this->edit($project, ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music']);
        $placed = $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'c', 'source' => $second['id'], 'at' => 0]);
        self::assertSame([422, $second['problem'], 'source'], [$this->statusCode(), $placed['detail'], $placed['field']], 'placed nevertheless, it says why not');
        self::assertSame('ready', $this->bringIn($this->newProject('Other'), 'second.wav', $bytes)['state'], 'another project may have it');
    }

    public function testWhatHasNotComeInWholeIsPlacedLater(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->call('POST', "/api/projects/{$project}/sources", ['name' => 'take.wav', 'size' => 1000]);
        $this->edit($project, ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music']);
        $placed = $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'c', 'source' => $source['id'], 'at' => 0]);
        self::assertSame([422, '“take.wav” has not come in whole yet. Place it once it has.', 'source'], [$this->statusCode(), $placed['detail'], $placed['field']]);
    }

    public function testAnUploadThatBrokeOffGoesOnWhereItStopped(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $bytes = self::media(1.0);
        $id = $this->call('POST', "/api/projects/{$project}/sources", ['name' => 'slow.wav', 'size' => \strlen($bytes)])['id'];
        $this->call('PUT', "/api/sources/{$id}/bytes?offset=0", substr($bytes, 0, 1000));
        self::assertSame(['uploading', 1000], [$this->sourceNow($project, $id)['state'], $this->sourceNow($project, $id)['received']]);
        $this->call('PUT', "/api/sources/{$id}/bytes?offset=5000", 'gap');
        self::assertSame(409, $this->statusCode());
        $this->call('PUT', "/api/sources/{$id}/bytes?offset=-5", 'RIFF');
        self::assertSame(400, $this->statusCode());
        $this->call('PUT', "/api/sources/{$id}/bytes?offset=500", substr($bytes, 500));
        $this->work();
        self::assertSame('ready', $this->sourceNow($project, $id)['state']);
        $this->call('PUT', "/api/sources/{$id}/bytes?offset=0", 'more');
        self::assertSame([200, 'ready'], [$this->statusCode(), $this->sourceNow($project, $id)['state']], 'a piece whose answer was lost is no error, and a finished source is never written again');
        $this->call('PUT', "/api/sources/{$id}/bytes?offset=".\strlen($bytes), 'more');
        self::assertSame(409, $this->statusCode());
    }

    /** @param int $sent bytes of the piece that is on its way when the upload is stopped */
    #[DataProvider('pieces')]
    public function testAPieceThatComesAfterItsUploadWasStoppedLeavesNothingBehind(int $sent): void
    {
        $by = $this->signedIn();
        $project = $this->newProject();
        $id = $this->call('POST', "/api/projects/{$project}/sources", ['name' => 'stopped.wav', 'size' => 100])['id'];
        $source = $this->entities()->find(Source::class, $id) ?? self::fail();
        $this->entities()->getConnection()->executeStatement('DELETE FROM source WHERE id = ?', [$id]);
        $jobs = $this->entities()->getRepository(Job::class)->count();
        try {
            self::service(Sources::class)->receive($source, $this->entities()->find(User::class, $by->id) ?? self::fail(), 0, str_repeat('x', $sent));
            self::fail('taken');
        } catch (NotFoundHttpException $gone) {
            self::assertSame('“stopped.wav” was removed while it was being sent. Send it again if it is still wanted.', $gone->getMessage());
        }
        self::assertSame($jobs, $this->entities()->getRepository(Job::class)->count());
        self::assertSame([], iterator_to_array(self::service(Store::class)->files("uploads/{$id}")));
    }

    /** @return array<string, array{int}> */
    public static function pieces(): array
    {
        return ['in the middle' => [50], 'the last one' => [100]];
    }

    public function testAnalysisIsCancelledAndLeavesNothing(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $bytes = self::media(1.0);
        $id = $this->call('POST', "/api/projects/{$project}/sources", ['name' => 'unwanted.wav', 'size' => \strlen($bytes)])['id'];
        $this->call('PUT', "/api/sources/{$id}/bytes?offset=0", $bytes);
        $this->call('DELETE', "/api/sources/{$id}");
        self::assertSame(204, $this->statusCode());
        $this->work();
        self::assertSame(0, $this->sourceCount($project));
    }

    public function testASourceOfThePresentOrAPastStateCannotBeRemoved(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'tone.wav', self::media(0.5))['id'];
        $this->edit($project, ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music']);
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'c', 'source' => $source, 'at' => 0]);
        $this->step('POST', $project, 'undo');
        self::assertStringContainsString('history', $this->refusal('DELETE', "/api/sources/{$source}"));
        self::assertSame(409, $this->statusCode());
    }

    /** Segments join on sample boundaries: together they are the source, bit for bit, as ffmpeg decodes it. */
    public function testSegmentsTogetherAreTheSourceBitForBit(): void
    {
        $this->signedIn();
        $bytes = self::media(5.0);
        $source = $this->bringIn($this->newProject(), 'tone.wav', $bytes)['id'];
        $joined = '';
        for ($n = 0; $n < 3; ++$n) {
            $this->call('GET', "/api/sources/{$source}/segments/{$n}");
            self::assertStringContainsString('immutable', (string) $this->response()->headers->get('Cache-Control'));
            $joined .= substr((string) $this->browser->getInternalResponse()->getContent(), 44);
        }
        self::assertSame(hash('sha256', Sound::run(['ffmpeg', '-v', 'error', '-i', Sound::file($bytes, '.wav'), '-f', 's16le', '-'])), hash('sha256', $joined));
        $this->call('GET', "/api/sources/{$source}/segments/3");
        self::assertSame(404, $this->statusCode());
    }

    /** @return string a WAV file of 40 channels, written by hand */
    private static function manyChannels(): string
    {
        $data = str_repeat("\0", 40 * 2 * 4800);

        return 'RIFF'.pack('V', 36 + \strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 40, 48_000, 48_000 * 80, 80, 16).'data'.pack('V', \strlen($data)).$data;
    }

    /** @param list<string> $options */
    private static function mediaFile(string $format, array $options, string $ending): string
    {
        $file = Sound::file('', ".{$ending}");
        Sound::run(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'sine=frequency=440:sample_rate=48000:duration=3,aformat=channel_layouts=stereo', ...$options, '-f', $format, $file]);

        return (string) file_get_contents($file);
    }

    /** A FLAC file of a second whose header says 100 hours. */
    private static function hundredHours(): string
    {
        $flac = self::media(1.0, format: 'flac');
        $samples = 100 * 3600 * 48_000;

        // STREAMINFO: the lowest 36 of 64 bits from byte 18 on are the number of samples (RFC 9639, section 8.2).
        return substr_replace($flac, pack('J', Sound::integers('J', substr($flac, 18, 8))[0] & ~0xFFFFFFFFF | $samples), 18, 8);
    }

    /** A MOV whose data reference says that its samples stand in another file. */
    private static function referenceMovie(): string
    {
        $mov = self::mediaFile('mov', ['-c:a', 'pcm_s16le', '-movflags', '+faststart'], 'mov');
        $reference = "url \0\0\0\0file:///etc/passwd\0";

        return str_replace("\0\0\0\x0Curl \0\0\0\1", pack('N', 4 + \strlen($reference)).$reference, $mov);
    }
}
