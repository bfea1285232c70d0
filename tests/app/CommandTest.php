<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use LogicException;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Role;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\Tests\support\Sound;
use Wattage\Tests\support\Voice;

final class CommandTest extends ApiTestCase
{
    public function testTheDemoIsLoadedWholeAndOnlyOnce(): void
    {
        $user = $this->signedIn();
        $command = new CommandTester((new Application(static::$kernel ?? throw new LogicException()))->find('wattage:demo'));
        foreach ([1, 2] as $_) {
            self::assertSame(0, $command->execute(['email' => $user->email]));
        }
        $projects = $this->call('GET', '/api/projects')['projects'];
        self::assertSame(['The Salt Ferry'], array_column($projects, 'name'));

        $mix = $this->call('GET', "/api/projects/{$projects[0]['id']}/mix")['mix'];
        self::assertGreaterThan(5 * 60 * 48_000, $mix['length']);
        self::assertCount(6, $mix['tracks']);
        self::assertCount(12, $mix['sources']);
        $sources = $this->entities()->getRepository(Source::class)->findBy(['project' => $projects[0]['id']]);
        self::assertCount(12, $sources);
        foreach ($sources as $source) {
            self::assertSame(SourceState::Ready, $source->state);
            $length = array_column($mix['sources'], 'length', 'id')[(string) $source->id];
            self::assertSame($length, $source->frames, $source->name.' is as long as the mix says');
        }
        self::assertStringStartsWith('Dip Slow accordion', $this->call('GET', "/api/projects/{$projects[0]['id']}/history")['revisions'][0]['label']);
    }

    public function testTheDemoNeedsAnAccount(): void
    {
        $command = new CommandTester((new Application(static::$kernel ?? throw new LogicException()))->find('wattage:demo'));
        self::assertSame(1, $command->execute(['email' => 'nobody@wattage.example']));
        self::assertStringContainsString('wattage:user', $command->getDisplay());
    }

    /** The speech against itself is understood whole; against a bed less, and less the louder that is; what is no file, or no speech, is said. */
    public function testClarityIsToldFromTheSoundsThemselves(): void
    {
        $this->signedIn();
        $command = new CommandTester((new Application(static::$kernel ?? throw new LogicException()))->find('wattage:clarity'));
        $speech = Sound::file(Voice::wav([[0.3, 4.0], [5.0, 8.5]], 9.0), '.wav');
        $mixes = array_map(static function (float $bed) use ($speech): string {
            Sound::run(['ffmpeg', '-v', 'error', '-y', '-i', $speech, '-f', 'lavfi', '-i', "anoisesrc=d=9:c=pink:r=48000:a={$bed}:seed=3", '-filter_complex', '[0:a][1:a]amix=inputs=2:normalize=0', '-c:a', 'flac', $mix = Sound::file('', '.flac')]);

            return $mix;
        }, [0.02, 0.2, 0.9]);
        self::assertSame(0, $command->execute(['speech' => $speech, 'programmes' => [$speech, ...$mixes]]));
        preg_match_all('/STOI (\S+), extended STOI (\S+)/', $command->getDisplay(), $found);
        self::assertSame(['1.000', '1.000'], [$found[1][0], $found[2][0]]);
        foreach ([1, 2] as $measure) {
            $values = array_map(floatval(...), $found[$measure]);
            $falling = $values;
            rsort($falling);
            self::assertSame($falling, $values);
            self::assertLessThan(0.7, $values[3]);
        }
        $silence = Sound::file(Voice::wav([], 2.0), '.wav');
        $command->execute(['speech' => $silence, 'programmes' => [$silence]]);
        self::assertStringContainsString('nobody speaks in', $command->getDisplay());
        self::assertSame(1, $command->execute(['speech' => $speech, 'programmes' => ['/gone.wav']]));
        self::assertStringContainsString('There is no file “gone.wav”', $command->getDisplay());
    }

    /** A long file is measured in two processes; it must read as ffmpeg says, and as the parts of it do alone. */
    public function testALongFileIsMeasuredInTwoProcesses(): void
    {
        $this->signedIn();
        $command = new CommandTester((new Application(static::$kernel ?? throw new LogicException()))->find('wattage:measure'));
        $media = \dirname(__DIR__, 2).'/demo/media';
        $long = Sound::file('', '.wav');
        Sound::run(['ffmpeg', '-v', 'error', '-y', '-i', "{$media}/narrator.ogg", '-i', "{$media}/departure.mp3", '-filter_complex', '[0:a]aformat=channel_layouts=stereo[a];[1:a]aformat=channel_layouts=stereo[b];[a][b]concat=n=2:v=0:a=1', '-ar', '48000', '-c:a', 'pcm_s16le', $long]);
        self::assertSame(0, $command->execute(['file' => $long, '--json' => true]));
        $found = json_decode($command->getDisplay(), true);
        self::assertIsArray($found);
        self::assertGreaterThan(120, $found['durationSeconds']);
        $said = Sound::run(['sh', '-c', "ffmpeg -nostdin -hide_banner -i {$long} -af ebur128=peak=true -f null - 2>&1 | tail -20"]);
        self::assertSame(1, preg_match('/I: +(-?[\d.]+) LUFS.*LRA: +([\d.]+) LU.*Peak: +(-?[\d.]+) dBFS/s', $said, $theirs));
        self::assertEqualsWithDelta((float) $theirs[1], $found['integratedLufs'], 0.1);
        self::assertEqualsWithDelta((float) $theirs[2], $found['rangeLu'], 0.2);
        self::assertEqualsWithDelta((float) $theirs[3], $found['truePeakDbtp'], 0.4);
    }

    public function testAMixIsDuckedFromTheCommandLine(): void
    {
        $this->signedIn();
        $command = new CommandTester((new Application(static::$kernel ?? throw new LogicException()))->find('wattage:duck'));
        $demo = \dirname(__DIR__, 2).'/demo';
        $out = Sound::file('', '.json');
        self::assertSame(0, $command->execute(['mix' => "{$demo}/salt-ferry.json", '--media' => "{$demo}/media", '--out' => $out]));
        self::assertMatchesRegularExpression('/^Music under speech: \d+ dips, -12\.0 to -12\.0 dB\.$/m', $command->getDisplay());
        $written = (string) file_get_contents($out);
        $mix = \Wattage\Core\Interchange\MixDocument::decode($written);
        self::assertFalse($mix->track('music')->ducking->curve->isFlat());
        self::assertSame(-12.0, $mix->track('music')->ducking->curve->levelAt(17 * 48_000)->db);
        self::assertStringContainsString('"file": "slow-accordion.ogg"', $written);

        self::assertSame(2, $command->execute(['mix' => 'nowhere.json', '--out' => $out]));
        self::assertSame(1, $command->execute(['mix' => "{$demo}/salt-ferry.json", '--media' => $demo, '--out' => $out]));
        self::assertStringContainsString('There is no file', $command->getDisplay());
    }

    public function testAFileIsMeasuredFromTheCommandLine(): void
    {
        $this->signedIn();
        $command = new CommandTester((new Application(static::$kernel ?? throw new LogicException()))->find('wattage:measure'));
        $file = \dirname(__DIR__, 2).'/demo/media/horn.flac';
        self::assertSame(0, $command->execute(['file' => $file, '--json' => true]));
        $found = json_decode($command->getDisplay(), true);
        self::assertIsArray($found);
        self::assertSame(['integratedLufs', 'rangeLu', 'maxMomentaryLufs', 'maxShortTermLufs', 'truePeakDbtp', 'samplePeakDbfs', 'durationSeconds', 'channels', 'sampleRate'], array_keys($found));
        self::assertSame([2, 44_100], [$found['channels'], $found['sampleRate']]);
        self::assertEqualsWithDelta(-0.1, $found['samplePeakDbfs'], 0.05);

        self::assertSame(0, $command->execute(['file' => $file]));
        self::assertStringContainsString('Integrated loudness', $command->getDisplay());

        // Six channels are measured, too; the middle alone, at −20 dBFS, reads −23.0.
        $surround = Sound::file('', '.wav');
        Sound::run(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'aevalsrc=0|0|0.1*sin(2*PI*1000*t)|0.9*sin(2*PI*50*t)|0|0:s=48000:d=4:c=5.1', $surround]);
        self::assertSame(0, $command->execute(['file' => $surround, '--json' => true]));
        self::assertEqualsWithDelta(-23.0, ((array) json_decode($command->getDisplay(), true))['integratedLufs'], 0.1);

        $silent = Sound::file('', '.wav');
        Sound::run(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'aevalsrc=0:s=48000:d=0.2', $silent]);
        self::assertSame(0, $command->execute(['file' => $silent]));
        self::assertStringContainsString('too short to say', $command->getDisplay());
        self::assertStringContainsString('digital silence', $command->getDisplay());
        foreach ([__FILE__ => 'not an audio or video file', '/nowhere/at/all.wav' => 'no file “all.wav”'] as $wrong => $says) {
            self::assertSame(1, $command->execute(['file' => $wrong]));
            self::assertStringContainsString($says, $command->getDisplay());
        }
    }

    public function testAFileOrAMixIsReportedOnFromTheCommandLine(): void
    {
        $this->signedIn();
        $command = new CommandTester((new Application(static::$kernel ?? throw new LogicException()))->find('wattage:report'));
        $demo = \dirname(__DIR__, 2).'/demo';
        $file = Sound::file('', '.wav');
        Sound::run(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'aevalsrc=0.1*sin(2*PI*1000*t):s=48000:d=6:c=mono', $file]);
        self::assertSame(3, $command->execute(['file' => $file, '--format' => 'json', '--target' => '-16']));
        /** @var array{outcome: array{integrated: float, truePeak: float, met: bool}, sha256: string, mix: null} $found */
        $found = json_decode($command->getDisplay(), true);
        // A 1 kHz sine of −20 dBFS in one channel reads −23.0 LUFS: EBU Tech 3341, for one of two channels.
        self::assertEqualsWithDelta([-23.0, -20.0], [$found['outcome']['integrated'], $found['outcome']['truePeak']], 0.1);
        self::assertSame([false, hash_file('sha256', $file), null], [$found['outcome']['met'], $found['sha256'], $found['mix']]);
        self::assertSame(0, $command->execute(['file' => $file, '--target' => (string) $found['outcome']['integrated']]));
        self::assertStringContainsString('On target:', $command->getDisplay());
        self::assertStringNotContainsString('Clearance', $command->getDisplay());
        $out = Sound::file('', '.pdf');
        self::assertSame(0, $command->execute(['file' => "{$demo}/salt-ferry.json", '--media' => "{$demo}/media", '--target' => '-16', '--true-peak' => '-1', '--format' => 'pdf', '--out' => $out]));
        self::assertStringStartsWith('%PDF-', (string) file_get_contents($out));
        self::assertSame(2, $command->execute(['file' => '/nowhere.wav']));
        self::assertSame(1, $command->execute(['file' => __FILE__]));
        self::assertSame(1, $command->execute(['file' => $file, '--target' => '40']));
    }

    public function testRolesIncludeOneAnotherUpwards(): void
    {
        self::assertTrue(Role::Owner->includes(Role::Viewer));
        self::assertTrue(Role::Editor->includes(Role::Editor));
        self::assertFalse(Role::Viewer->includes(Role::Editor));
        self::assertFalse(Role::Editor->includes(Role::Owner));
    }

    public function testSharingAgainChangesTheRole(): void
    {
        $owner = $this->user();
        $other = $this->user('Ben');
        $project = new Project('P', $owner);
        $project->share($other, Role::Viewer);
        $project->share($other, Role::Editor);
        self::assertSame(Role::Editor, $project->roleOf($other));
        self::assertNull($project->roleOf($this->user('Cleo')));
    }
}
