<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use LogicException;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;
use Wattage\Tests\support\Sound;

/** From a mix to a file: by a worker, and on the console. */
final class DeliveryTest extends ApiTestCase
{
    public function testADippedProgrammeIsDeliveredAndIsQuieterThereByWhatWasAsked(): void
    {
        $this->signedIn();
        $project = $this->projectWithTone();
        $this->edit($project, ['edit' => 'dip-range', 'clips' => ['c'], 'from' => '0:02', 'to' => '0:04', 'by' => -11, 'ramp' => 9600]);
        foreach (['pcm16' => 'pcm_s16le', 'pcm24' => 'pcm_s24le', 'float32' => 'pcm_f32le'] as $format => $codec) {
            $delivery = $this->call('POST', "/api/projects/{$project}/deliveries", ['format' => $format]);
            self::assertSame([202, 'waiting'], [$this->statusCode(), $delivery['state']]);
            $this->call('GET', "/api/deliveries/{$delivery['id']}/file");
            self::assertSame(409, $this->statusCode(), 'nothing half-written is handed out');
            $this->work();
            $this->browser->request('GET', "/api/deliveries/{$delivery['id']}/file");
            $file = Sound::file((string) $this->browser->getInternalResponse()->getContent(), '.wav');
            self::assertStringContainsString($codec, Sound::run(['ffprobe', '-v', 'error', '-show_streams', $file]));
            self::assertEqualsWithDelta(-11.0, self::rmsDb($file, 2.5, 1.0) - self::rmsDb($file, 0.5, 1.0), 0.1);
            self::assertEqualsWithDelta(0.0, self::rmsDb($file, 5.0, 0.5) - self::rmsDb($file, 0.5, 1.0), 0.1);
        }
        $list = $this->call('GET', "/api/projects/{$project}/deliveries")['deliveries'];
        self::assertSame(['done', 'done', 'done'], array_column($list, 'state'));
    }

    /** A sine of −21.07 dBFS on both sides, lifted by 24 dB. */
    public function testWhatPassesFullScaleIsToldWithHowMuchAndWhere(): void
    {
        $this->signedIn();
        $project = $this->projectWithTone();
        $this->call('POST', "/api/projects/{$project}/deliveries", ['format' => 'pcm16']);
        $this->edit($project, ['edit' => 'dip-range', 'clips' => ['c'], 'from' => '0:02', 'to' => '0:04', 'by' => 24, 'ramp' => 9600]);
        $this->call('POST', "/api/projects/{$project}/deliveries", ['format' => 'pcm24']);
        $this->work(2);
        [$loud, $fine] = array_column($this->call('GET', "/api/projects/{$project}/deliveries")['deliveries'], 'clipping');
        self::assertSame([0, []], [$fine['samples'], $fine['places']]);
        self::assertEqualsWithDelta(-21.07, $fine['peak'], 0.1);
        self::assertEqualsWithDelta(2.93, $loud['peak'], 0.1);
        self::assertCount(1, $loud['places']);
        [$from, $to, $peak] = $loud['places'][0];
        self::assertEqualsWithDelta([2.0, 4.0, 2.93], [$from / 48_000, $to / 48_000, $peak], 0.2);
        self::assertGreaterThan(48_000, $loud['samples']);
    }

    public function testAnEmptyProgrammeIsNotRendered(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        self::assertStringContainsString('Place a clip', $this->call('POST', "/api/projects/{$project}/deliveries", ['format' => 'pcm16'])['detail']);
        self::assertSame('format', $this->call('POST', "/api/projects/{$project}/deliveries", ['format' => 'mp3'])['field']);
    }

    public function testACancelledDeliveryStaysUnfinished(): void
    {
        $this->signedIn();
        $project = $this->projectWithTone();
        $id = $this->call('POST', "/api/projects/{$project}/deliveries", ['format' => 'pcm16'])['id'];
        self::assertSame('cancelled', $this->call('DELETE', "/api/deliveries/{$id}")['state']);
        $this->work();
        self::assertSame('cancelled', $this->call('GET', "/api/projects/{$project}/deliveries")['deliveries'][0]['state']);
    }

    public function testTheConsoleRendersAMixFileAndTheMediaBesideIt(): void
    {
        $out = Sound::file('', '.wav');
        [$code, $says] = self::render(self::mixFile(), $out);
        self::assertSame(0, $code, $says);
        $theirs = Sound::run(['ffmpeg', '-v', 'error', '-i', $out, '-f', 's16le', '-']);
        self::assertSame(3 * 48_000 * 4, \strlen($theirs));
        self::assertEqualsWithDelta(-21.07 - 6.02, self::rmsDb($out, 0.5, 1.0), 0.1, 'a sine of amplitude 1/8, halved');
    }

    public function testTheConsoleSaysWhatIsWrongAndWritesNothing(): void
    {
        $out = sys_get_temp_dir().'/wattage-never-'.bin2hex(random_bytes(4)).'.wav';
        [$code, $says] = self::render(Sound::file('{"format":"tape"}', '.json'), $out);
        self::assertSame([1, true], [$code, str_contains($says, 'format')]);
        [$code, $says] = self::render(self::mixFile('gone.wav'), $out);
        self::assertSame([1, true], [$code, str_contains($says, '“gone.wav”')]);
        self::assertFileDoesNotExist($out);
    }

    public function testTheConsoleBringsFilesToATargetAndTellsWhenOneWasMissed(): void
    {
        $out = Sound::file('', '.flac');
        [$code, $says] = self::render(self::mixFile(), $out, ['--format' => 'flac', '--target' => '-20', '--true-peak' => '-1']);
        self::assertSame(0, $code, $says);
        self::assertStringContainsString('-20.0 LUFS', $says);
        self::assertStringContainsString('codec_name=flac', Sound::run(['ffprobe', '-v', 'error', '-show_streams', $out]));
        [$code, $says] = self::render(self::mixFile(), $out, ['--target' => '-6', '--true-peak' => '-20']);
        self::assertSame([3, true], [$code, str_contains($says, 'The target was missed')], $says);
        [$code, $says] = self::render(self::mixFile(), $out, ['--target' => 'loud']);
        self::assertSame([1, true], [$code, str_contains($says, 'cannot be asked for')], $says);
        [$code] = self::render(self::mixFile(), $out, ['--format' => 'tape']);
        self::assertSame(2, $code);
    }

    public function testTheConsoleMakesStemsRangesAndRecipes(): void
    {
        $dir = sys_get_temp_dir().'/wattage-handover-'.bin2hex(random_bytes(4));
        mkdir($dir);
        [$code, $says] = self::render(self::mixFile(), "{$dir}/mix.wav", ['--stems' => 'music,speech', '--range' => '0:01-0:02']);
        self::assertSame(0, $code, $says);
        $files = array_map(basename(...), glob("{$dir}/*") ?: []);
        self::assertSame(['mix music.wav', 'mix speech.wav'], $files);
        self::assertStringContainsString('duration=1.000000', Sound::run(['ffprobe', '-v', 'error', '-show_format', "{$dir}/mix music.wav"]));
        self::assertEqualsWithDelta(-21.07 - 6.02, self::rmsDb("{$dir}/mix music.wav", 0.0, 1.0), 0.1);
        [$code, $says] = self::render(self::mixFile(), "{$dir}/mix.wav", ['--stems' => 'drums']);
        self::assertSame([1, true], [$code, str_contains($says, 'There is no stem “drums”')]);

        $recipe = Sound::file((string) json_encode(['name' => 'Mine', 'pattern' => '{recipe} {part}', 'files' => [['format' => 'opus', 'target' => ['loudness' => -23.0]], ['format' => 'wav', 'bits' => 16, 'part' => 'stem', 'stem' => 'music', 'target' => ['loudness' => null]]]]), '.json');
        [$code, $says] = self::render(self::mixFile(), $dir, ['--recipe' => $recipe]);
        self::assertSame(0, $code, $says);
        self::assertFileExists("{$dir}/Mine.opus");
        self::assertFileExists("{$dir}/Mine music.wav");
        Sound::run(['rm', '-r', $dir]);
    }

    private function projectWithTone(): string
    {
        $project = $this->newProject();
        $source = $this->bringIn($project, 'tone.wav', self::media(6.0))['id'];
        $this->edit($project, ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music']);
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'c', 'source' => $source, 'at' => 0]);

        return $project;
    }

    private static function mixFile(?string $media = null): string
    {
        $file = Sound::file(self::media(3.0, 1), '.wav');

        return Sound::file((string) json_encode(['format' => 'wattage-mix', 'version' => 1, 'rate' => 48_000, 'frameRate' => '25',
            'sources' => [['id' => 'tone', 'name' => 'Tone', 'file' => $media ?? basename($file), 'length' => 144_000, 'channels' => 1]],
            'tracks' => [['id' => 't', 'name' => 'T', 'stem' => 'music', 'clips' => [['id' => 'c', 'source' => 'tone', 'name' => 'Tone', 'at' => 0, 'in' => 0, 'length' => 144_000, 'gain' => '50%']]]],
        ]), '.json');
    }

    /**
     * @param array<string, string> $options
     *
     * @return array{int, string}
     */
    private static function render(string $mix, string $out, array $options = []): array
    {
        $tester = new CommandTester((new Application(static::$kernel ?? throw new LogicException()))->find('wattage:render'));
        $code = $tester->execute(['mix' => $mix, '--media' => sys_get_temp_dir(), '--out' => $out, ...$options + ['--format' => 'pcm16']]);

        return [$code, $tester->getDisplay()];
    }

    /** Level as sox measures it. */
    private static function rmsDb(string $file, float $from, float $seconds): float
    {
        $process = proc_open(['sox', $file, '-n', 'trim', (string) $from, (string) $seconds, 'stats'], [2 => ['pipe', 'w']], $pipes);
        self::assertIsResource($process);
        preg_match('/^RMS lev dB\s+(-?[\d.]+)/m', (string) stream_get_contents($pipes[2]), $found);
        proc_close($process);

        return (float) ($found[1] ?? \NAN);
    }
}
