<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Wattage\Core\Handover\Chapter;
use Wattage\Core\Handover\CuePoints;
use Wattage\Tests\support\Sound;

/** What comes from recorders and cameras: several channels, names, times of day, cue points, films without sound. */
final class FieldSourceTest extends ApiTestCase
{
    public function testEachChannelIsASourceWithTheNameThatTheRecorderGaveAndTheyAreLaidTogether(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $ixml = '<?xml version="1.0"?><BWFXML><TRACK_LIST><TRACK_COUNT>3</TRACK_COUNT><TRACK><CHANNEL_INDEX>4</CHANNEL_INDEX><INTERLEAVE_INDEX>1</INTERLEAVE_INDEX><NAME>Boom</NAME></TRACK><TRACK><CHANNEL_INDEX>6</CHANNEL_INDEX><INTERLEAVE_INDEX>3</INTERLEAVE_INDEX><NAME>Lav Nora &amp; Jo</NAME></TRACK></TRACK_LIST></BWFXML>';
        $sine = static fn (int $hz): array => Sound::sine($hz, 0.1 * $hz / 400, 48_000);
        $this->bringIn($project, 'take 12.wav', self::wav(3, Sound::pcm16($sine(300), $sine(500), $sine(700)), self::chunk('iXML', $ixml)));
        $sources = array_column($this->call('GET', "/api/projects/{$project}/sources")['sources'], null, 'name');
        ksort($sources);
        self::assertSame(['take 12.wav · Boom', 'take 12.wav · Lav Nora & Jo', 'take 12.wav · channel 2'], array_keys($sources));
        foreach (['Boom' => 300, 'channel 2' => 500, 'Lav Nora & Jo' => 700] as $name => $hz) {
            $source = $sources["take 12.wav · {$name}"];
            self::assertSame(['ready', 1, 48_000], [$source['state'], $source['channels'], $source['frames']]);
            self::assertEqualsWithDelta(20 * log10(0.1 * $hz / 400), $source['peakDbfs'], 0.1, $name);
        }
        $edit = $this->call('POST', "/api/projects/{$project}/together", ['sources' => array_column($sources, 'id'), 'at' => 4800])['edit'];
        $this->edit($project, $edit);
        $mix = $this->call('GET', "/api/projects/{$project}/mix")['mix'];
        self::assertSame(['Boom', 'Lav Nora & Jo', 'channel 2'], array_column($mix['tracks'], 'name'));
        self::assertSame([[4800, 48_000], [4800, 48_000], [4800, 48_000]], array_map(static fn (array $c): array => [$c['at'], $c['length']], $mix['clips']));
        self::assertStringContainsString('is the same file as', $this->bringIn($project, 'again.wav', self::wav(3, Sound::pcm16($sine(300), $sine(500), $sine(700))))['problem']);
    }

    public function testASilentChannelIsNoReasonToRefuseTheNextTake(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $take = static fn (int $hz): string => self::wav(3, Sound::pcm16(Sound::sine($hz, 0.2, 9600), array_fill(0, 9600, 0.0), array_fill(0, 9600, 0.0)));
        $this->bringIn($project, 'take 1.wav', $take(300));
        $this->bringIn($project, 'take 2.wav', $take(400));
        self::assertSame(['ready'], array_values(array_unique(array_column($this->call('GET', "/api/projects/{$project}/sources")['sources'], 'state'))));
        self::assertSame(6, $this->sourceCount($project));
    }

    public function testRecordersThatSayWhenTheyBeganAreLaidByTheirTimes(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        // 10:00:00 and 1.5 s later, the second at 44.1 kHz.
        $first = $this->bringIn($project, 'a.wav', self::wav(1, Sound::pcm16(Sound::sine(300, 0.1, 96_000)), self::bext(36_000 * 48_000)));
        $second = $this->bringIn($project, 'b.wav', self::wav(1, Sound::pcm16(Sound::sine(400, 0.1, 44_100)), self::bext((int) (36_001.5 * 44_100)), 44_100));
        self::assertSame([36_000 * 48_000, (int) (36_001.5 * 48_000)], [$first['beganAt'], $second['beganAt']]);
        /** @var array{tracks: list<array{clips: list<array{at: int}>}>} $edit */
        $edit = $this->call('POST', "/api/projects/{$project}/together", ['sources' => [$first['id'], $second['id']], 'byTime' => true])['edit'];
        self::assertSame([0, 72_000], [$edit['tracks'][0]['clips'][0]['at'], $edit['tracks'][1]['clips'][0]['at']]);
        $third = $this->bringIn($project, 'c.wav', self::media(1.0, 1));
        $refused = $this->call('POST', "/api/projects/{$project}/together", ['sources' => [$first['id'], $third['id']], 'byTime' => true]);
        self::assertSame(422, $this->statusCode());
        self::assertStringContainsString('“c.wav” does not say when it was recorded', $refused['detail']);
    }

    public function testCuePointsAndChaptersComeAlongAsMarkers(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $cues = CuePoints::chunks([new Chapter(12_000, 'Horn'), new Chapter(36_000, 'Gulls; far')]);
        $wav = $this->bringIn($project, 'cues.wav', self::wav(1, Sound::pcm16(Sound::sine(300, 0.1, 48_000)), $cues));
        self::assertSame(2, $wav['marks']);
        $meta = Sound::file(";FFMETADATA1\n[CHAPTER]\nTIMEBASE=1/1000\nSTART=0\nEND=500\ntitle=Opening\n[CHAPTER]\nTIMEBASE=1/1000\nSTART=500\nEND=1000\ntitle=Weather\n", '.txt');
        $file = Sound::file('', '.m4a');
        Sound::run(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'sine=duration=1', '-i', $meta, '-map_metadata', '1', '-c:a', 'aac', $file]);
        $m4a = $this->bringIn($project, 'chapters.m4a', (string) file_get_contents($file));
        $edit = $this->call('POST', "/api/projects/{$project}/together", ['sources' => [$wav['id'], $m4a['id']], 'at' => 48_000])['edit'];
        $this->edit($project, $edit);
        $markers = $this->call('GET', "/api/projects/{$project}/mix")['mix']['markers'];
        self::assertSame([[48_000, 'Opening'], [60_000, 'Horn'], [72_000, 'Weather'], [84_000, 'Gulls; far']], array_map(static fn (array $m): array => [$m['at'], $m['name']], $markers));
    }

    public function testAFilmWithoutSoundIsTakenForItsPicture(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $file = Sound::file('', '.mkv');
        Sound::run(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'color=s=64x64:d=2:r=25', '-c:v', 'libvpx', $file]);
        $source = $this->bringIn($project, 'drone.mkv', (string) file_get_contents($file));
        $this->work();
        self::assertSame(['ready', 1, 96_000, 'ready', 'There is no sound in this film; its picture is here.'], [$source['state'], $source['channels'], $source['frames'], $this->sourceNow($project, $source['id'])['picture'], $source['warning']]);
    }

    public function testAFilmWithSixChannelsGivesEachAndItsPicture(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $file = Sound::file('', '.mov');
        Sound::run(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', 'color=s=64x64:d=1:r=25', '-f', 'lavfi', '-i', 'aevalsrc=0.1*sin(2000*t)|0.2*sin(2000*t)|0.3*sin(2000*t)|0|0.05*sin(2000*t)|0.5*sin(2000*t):s=48000:d=1:c=5.1', '-c:v', 'mpeg4', '-c:a', 'pcm_s16le', $file]);
        $this->bringIn($project, 'scene.mov', (string) file_get_contents($file));
        $this->work();
        $sources = array_column($this->call('GET', "/api/projects/{$project}/sources")['sources'], null, 'name');
        self::assertCount(7, $sources);
        self::assertSame(['ready', 'The channels of this film are sources of their own; this one has its picture.'], [$sources['scene.mov']['picture'], $sources['scene.mov']['warning']]);
        self::assertEqualsWithDelta(20 * log10(0.5), $sources['scene.mov · channel 6']['peakDbfs'], 0.1);
        self::assertSame('none', $sources['scene.mov · channel 6']['picture']);
    }

    public function testNamesThatAskForMoreAreNotRead(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $bomb = '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a SYSTEM "file:///etc/passwd">]><BWFXML><TRACK_LIST><TRACK><INTERLEAVE_INDEX>1</INTERLEAVE_INDEX><NAME>&a;</NAME></TRACK></TRACK_LIST></BWFXML>';
        $this->bringIn($project, 'x.wav', self::wav(3, str_repeat("\0", 6 * 4800), self::chunk('iXML', $bomb)));
        $names = array_column($this->call('GET', "/api/projects/{$project}/sources")['sources'], 'name');
        sort($names);
        self::assertContains('x.wav · channel 1', $names);
    }

    private static function wav(int $channels, string $pcm, string $chunks = '', int $rate = 48_000): string
    {
        $body = 'fmt '.pack('VvvVVvv', 16, 1, $channels, $rate, $rate * 2 * $channels, 2 * $channels, 16).'data'.pack('V', \strlen($pcm)).$pcm.$chunks;

        return 'RIFF'.pack('V', 4 + \strlen($body)).'WAVE'.$body;
    }

    private static function chunk(string $id, string $body): string
    {
        return $id.pack('V', \strlen($body)).$body.(\strlen($body) % 2 ? "\0" : '');
    }

    /** EBU Tech 3285: the time reference stands at byte 338. */
    private static function bext(int $samples): string
    {
        return self::chunk('bext', str_pad('Made up', 338, "\0").pack('P', $samples).str_repeat("\0", 256));
    }
}
