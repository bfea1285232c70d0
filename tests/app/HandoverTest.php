<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestDox;
use Wattage\Tests\support\Sound;

/** Files that are handed over, read by others: ffprobe, mediainfo, ffmpeg's ebur128 and loudgain. */
final class HandoverTest extends HandoverTestCase
{
    /** @param array<string, mixed> $order */
    #[DataProvider('files')]
    #[TestDox('$_dataName: as asked for, by what others read in it')]
    public function testAFileIsWhatWasAskedForAndMeasuresAtItsTarget(array $order, string $codec, int $rate, int $channels): void
    {
        $project = $this->programme();
        [$delivery] = $this->handOver($project, [$order + ['target' => ['loudness' => -17.0, 'truePeak' => -1.5]]]);
        self::assertSame('done', $delivery['state'], $delivery['problem'] ?? '');
        $file = $this->fetch($delivery);
        $found = Sound::probe($file);
        self::assertSame([$codec, $rate, $channels], [$found['streams'][0]['codec_name'], (int) $found['streams'][0]['sample_rate'], $found['streams'][0]['channels']]);
        self::assertEqualsWithDelta(12.0, (float) $found['format']['duration'], 0.1);

        $theirs = self::ebur128($file);
        self::assertEqualsWithDelta(-17.0, $theirs['I'], 0.1);
        self::assertLessThanOrEqual(-1.5 + 0.2, $theirs['Peak']);
        self::assertEqualsWithDelta($theirs['I'], $delivery['outcome']['integrated'], 0.1);
        self::assertTrue($delivery['outcome']['met']);
        self::assertGreaterThan(0.0, $delivery['outcome']['guard']['most'], 'the guard had something to do');
        self::assertSame('m', $delivery['outcome']['guard']['places'][0]['track'], 'because of the track with the clicks');
    }

    /** @return iterable<string, array{array<string, mixed>, string, int, int}> */
    public static function files(): iterable
    {
        yield 'WAV, 24 bit' => [['format' => 'wav', 'bits' => 24], 'pcm_s24le', 48_000, 2];
        yield 'WAV, 16 bit at 44.1 kHz' => [['format' => 'wav', 'bits' => 16, 'rate' => 44_100], 'pcm_s16le', 44_100, 2];
        yield 'WAV, float at 96 kHz, mono' => [['format' => 'wav', 'bits' => 32, 'rate' => 96_000, 'channels' => 1], 'pcm_f32le', 96_000, 1];
        yield 'FLAC, 24 bit' => [['format' => 'flac', 'bits' => 24], 'flac', 48_000, 2];
        yield 'MP3' => [['format' => 'mp3', 'kbps' => 192, 'rate' => 44_100], 'mp3', 44_100, 2];
        yield 'AAC, mono' => [['format' => 'aac', 'kbps' => 96, 'channels' => 1], 'aac', 48_000, 1];
        yield 'Opus' => [['format' => 'opus', 'kbps' => 128], 'opus', 48_000, 2];
    }

    public function testLoudgainAgreesOnLoudnessAndTruePeak(): void
    {
        $project = $this->programme();
        [$delivery] = $this->handOver($project, [['format' => 'flac', 'bits' => 24, 'target' => ['loudness' => -16.0, 'truePeak' => -1.0]]]);
        $row = explode("\t", explode("\n", trim(Sound::run(['loudgain', '-O', $this->fetch($delivery)])))[1]);
        self::assertEqualsWithDelta(-16.0, (float) $row[1], 0.1, implode(' ', $row));
        self::assertEqualsWithDelta(-1.0, 20.0 * log10((float) $row[3]), 0.2, implode(' ', $row));
    }

    public function testAWavFileSaysToABroadcasterWhatItIs(): void
    {
        $project = $this->programme();
        $this->edit($project, ['edit' => 'add-marker', 'marker' => 'k1', 'at' => 96_000, 'name' => 'Überfahrt']);
        $this->edit($project, ['edit' => 'add-marker', 'marker' => 'k2', 'at' => 240_000, 'name' => 'Harbour']);
        [$delivery] = $this->handOver($project, [['format' => 'wav', 'bits' => 24, 'range' => ['from' => 48_000, 'to' => 480_000], 'target' => ['loudness' => -23.0, 'truePeak' => -1.0]]], ['tags' => ['title' => 'The Crossing', 'author' => 'Ada']]);
        $file = $this->fetch($delivery);
        $bytes = (string) file_get_contents($file);
        $bext = substr($bytes, (int) strpos($bytes, 'bext') + 8, 602);
        [, $version] = unpack('v', $bext, 346) ?: [];
        $loudness = array_map(static fn (int $v): float => ($v >= 32_768 ? $v - 65_536 : $v) / 100, Sound::integers('v5', $bext, 412));
        self::assertSame(2, $version);
        self::assertSame(48_000, (unpack('P', $bext, 338) ?: [])[1] ?? null, 'time reference');
        $outcome = $delivery['outcome'];
        self::assertEqualsWithDelta([$outcome['integrated'], $outcome['range'], $outcome['truePeak'], $outcome['maxMomentary'], $outcome['maxShortTerm']], $loudness, 0.011);
        $theirs = self::ebur128($file);
        self::assertEqualsWithDelta([$theirs['I'], $theirs['LRA']], \array_slice($loudness, 0, 2), 0.2);

        $probed = Sound::probe($file)['format'];
        self::assertEqualsWithDelta(9.0, (float) $probed['duration'], 0.001);
        $tags = $probed['tags'] ?? [];
        self::assertSame(['The Crossing', 'Ada', '48000'], [$tags['title'], $tags['artist'], $tags['time_reference']]);
        self::assertStringContainsString('A=PCM,F=48000,W=24,M=stereo', $tags['coding_history']);
        $mediainfo = Sound::run(['mediainfo', '--Full', $file]);
        self::assertStringContainsString('The Crossing', $mediainfo);
        // Cue points at the markers, by frames of the file, with their names.
        $cue = (int) strpos($bytes, 'cue ');
        self::assertSame([2, 1, 48_000], Sound::integers('V3', $bytes, $cue + 8));
        self::assertSame([2, 192_000], Sound::integers('V2', $bytes, $cue + 12 + 24));
        self::assertStringContainsString("Überfahrt\0", $bytes);
    }

    #[DataProvider('withChapters')]
    public function testMarkersAreChaptersAndTagsAreTags(string $format): void
    {
        $project = $this->programme();
        $this->edit($project, ['edit' => 'add-marker', 'marker' => 'k0', 'at' => 0, 'name' => 'Casting off']);
        $this->edit($project, ['edit' => 'add-marker', 'marker' => 'k1', 'at' => 288_000, 'name' => 'Fog = horn; #2']);
        [$delivery] = $this->handOver($project, [['format' => $format]], ['tags' => ['title' => 'Episode 3: Fog', 'programme' => 'The Salt Ferry', 'author' => 'Ada Okoro']]);
        $found = Sound::probe($this->fetch($delivery));
        $tags = array_change_key_case(($found['format']['tags'] ?? []) + ($found['streams'][0]['tags'] ?? []));
        self::assertSame(['Episode 3: Fog', 'The Salt Ferry', 'Ada Okoro'], [$tags['title'], $tags['album'], $tags['artist']]);
        self::assertSame(['Casting off', 'Fog = horn; #2'], array_column(array_column($found['chapters'], 'tags'), 'title'));
        self::assertEqualsWithDelta([0.0, 6.0], array_map(floatval(...), array_column($found['chapters'], 'start_time')), 0.03);
    }

    /** @return iterable<string, array{string}> */
    public static function withChapters(): iterable
    {
        foreach (['mp3', 'aac', 'opus', 'flac'] as $format) {
            yield $format => [$format];
        }
    }

    public function testStemsAddUpToTheProgrammeAfterTheGuardToo(): void
    {
        $project = $this->programme();
        $target = ['target' => ['loudness' => -14.0, 'truePeak' => -1.0], 'format' => 'wav', 'bits' => 32];
        $stems = array_map(static fn (string $stem): array => $target + ['part' => 'stem', 'stem' => $stem, 'asProgramme' => true], ['speech', 'music', 'ambience', 'effects']);
        $deliveries = $this->handOver($project, [$target, ...$stems]);
        self::assertGreaterThan(0.5, $deliveries[0]['outcome']['guard']['most']);
        $sound = static fn (string $file): array => Sound::floats(Sound::run(['ffmpeg', '-v', 'error', '-i', $file, '-f', 'f32le', '-']));
        $whole = $sound($this->fetch($deliveries[0]));
        foreach (\array_slice($deliveries, 1) as $stem) {
            foreach ($sound($this->fetch($stem)) as $i => $sample) {
                $whole[$i] -= $sample;
            }
        }
        self::assertLessThan(10.0 ** (-120.0 / 20.0), max(array_map(abs(...), $whole) ?: [1.0]));
    }

    public function testPartsHaveWhatTheyAreNamedAfter(): void
    {
        $project = $this->programme();
        $plain = ['format' => 'wav', 'bits' => 16, 'target' => ['loudness' => null, 'truePeak' => null]];
        $deliveries = $this->handOver($project, [$plain + ['part' => 'stem', 'stem' => 'speech'], $plain + ['part' => 'without', 'stem' => 'speech'], $plain + ['part' => 'track', 'track' => 'm']], ['pattern' => '{project} {part}']);
        self::assertSame(['Crossing speech.wav', 'Crossing without speech.wav', 'Crossing M.wav'], array_column($deliveries, 'name'));
        $levels = array_map(fn (array $d): float => self::ebur128($this->fetch($d))['I'], $deliveries);
        self::assertEqualsWithDelta($levels[1], $levels[2], 0.05, 'music is all there is beside speech');
        self::assertNotEqualsWithDelta($levels[0], $levels[1], 1.0);
    }

    public function testWhatCannotBeMadeIsSaidBeforeAnythingIsStarted(): void
    {
        $this->signedIn();
        $empty = $this->newProject();
        self::assertStringContainsString('Place a clip', $this->call('POST', "/api/projects/{$empty}/handovers", ['files' => [['format' => 'wav']]])['detail']);
        $project = $this->programme(false);
        foreach ([
            [['files' => []], 'A recipe has 1 to 30 files'],
            [['files' => array_fill(0, 31, ['format' => 'wav'])], '30'],
            [['files' => [['format' => 'wav'], ['format' => 'tape']]], 'wav, flac'],
            [['files' => [['format' => 'wav', 'part' => 'track', 'track' => 'gone']]], 'is not in this mix any more'],
            [['files' => [['format' => 'wav', 'range' => ['from' => 48_000 * 60, 'to' => 48_000 * 61]]]], 'behind the end'],
            [['files' => [['format' => 'wav']], 'pattern' => '{secret}'], 'A pattern for names'],
            [['files' => [['format' => 'wav']], 'colour' => 1], 'colour'],
        ] as [$body, $said]) {
            $answer = $this->call('POST', "/api/projects/{$project}/handovers", $body);
            self::assertSame(422, $this->statusCode(), $said);
            self::assertStringContainsString($said, $answer['detail']);
        }
        self::assertSame([], $this->call('GET', "/api/projects/{$project}/deliveries")['deliveries']);
    }

    public function testSilenceAndARangeOfOneFrameEndWithASentence(): void
    {
        $project = $this->programme();
        [$silent, $short] = $this->handOver($project, [
            ['format' => 'wav', 'part' => 'stem', 'stem' => 'effects', 'target' => ['loudness' => -23.0]],
            ['format' => 'wav', 'range' => ['from' => 100, 'to' => 101], 'target' => ['loudness' => -23.0]],
        ]);
        foreach ([$silent, $short] as $delivery) {
            self::assertSame('failed', $delivery['state']);
            self::assertStringContainsString('silent, or too short to measure', $delivery['problem']);
        }
    }

    public function testRecipesAreKeptWithTheAccount(): void
    {
        $ada = $this->signedIn();
        $usual = $this->call('GET', '/api/recipes')['recipes'];
        self::assertSame(['To the broadcaster', 'To the podcast host', 'Stems for the archive', 'The film'], array_column($usual, 'name'));
        $mine = $this->call('POST', '/api/recipes', ['name' => 'To Nora', 'pattern' => '{project} {date}', 'files' => [['format' => 'opus']]]);
        self::assertSame(201, $this->statusCode());
        $this->call('PUT', "/api/recipes/{$mine['id']}", ['name' => 'To Nora and Vera', 'files' => [['format' => 'opus'], ['format' => 'flac', 'bits' => 16]]]);
        foreach ($usual as $recipe) {
            $this->call('DELETE', "/api/recipes/{$recipe['id']}");
        }
        $left = $this->call('GET', '/api/recipes')['recipes'];
        self::assertSame(['To Nora and Vera'], array_column($left, 'name'));
        self::assertSame([['format' => 'opus', 'kbps' => 128], ['format' => 'flac', 'bits' => 16]], array_map(static fn (array $file): array => array_intersect_key($file, ['format' => 0, 'kbps' => 0, 'bits' => 0]), $left[0]['files']));
        self::assertSame(422, $this->call('POST', '/api/recipes', ['name' => '', 'files' => [['format' => 'wav']]])['status'] ?? null);

        $this->signIn($this->user('Stranger'));
        self::assertSame(404, $this->call('PUT', "/api/recipes/{$mine['id']}", ['name' => 'Mine', 'files' => [['format' => 'wav']]])['status'] ?? null);
        self::assertNotContains('To Nora and Vera', array_column($this->call('GET', '/api/recipes')['recipes'], 'name'));
        $this->signIn($ada);
        $this->call('DELETE', "/api/recipes/{$mine['id']}");
        self::assertSame([], $this->call('GET', '/api/recipes')['recipes'], 'who removes all has none');
    }

    public function testACoverPictureGoesIntoTheFilesAndOnlyAPictureIsOne(): void
    {
        $project = $this->programme();
        $put = function (string $bytes) use ($project): int {
            $this->browser->request('PUT', "/api/projects/{$project}/cover", server: ['HTTP_X-CSRF-TOKEN' => $this->call('GET', '/api/session')['csrf'], 'CONTENT_TYPE' => 'application/octet-stream'], content: $bytes);

            return $this->statusCode();
        };
        $picture = Sound::run(['ffmpeg', '-v', 'error', '-f', 'lavfi', '-i', 'testsrc=size=1600x1600', '-frames:v', '1', '-f', 'image2pipe', '-c:v', 'png', '-']);
        self::assertSame(422, $put(substr($picture, 0, 60)), 'cut off');
        self::assertSame(422, $put('<svg xmlns="http://www.w3.org/2000/svg"/>'));
        self::assertSame(413, $put(str_repeat("\x89PNG", 2_600_000)));
        self::assertSame(204, $put($picture));
        foreach ($this->handOver($project, [['format' => 'mp3'], ['format' => 'aac'], ['format' => 'flac'], ['format' => 'opus'], ['format' => 'wav']]) as $delivery) {
            self::assertSame('done', $delivery['state'], $delivery['problem'] ?? '');
            $streams = Sound::probe($this->fetch($delivery))['streams'];
            $covers = array_values(array_filter($streams, static fn (array $s): bool => 1 === $s['disposition']['attached_pic']));
            $expected = \in_array($delivery['order']['format'], ['opus', 'wav'], true) ? [] : [1400];
            self::assertSame($expected, array_column($covers, 'width'), $delivery['name']);
        }
        $this->call('DELETE', "/api/projects/{$project}/cover");
        $this->call('GET', "/api/projects/{$project}/cover");
        self::assertSame(204, $this->statusCode());
    }

    public function testTargetsAreKeptByName(): void
    {
        $this->signedIn();
        $own = ['name' => 'Harbour radio', 'loudness' => -18.5, 'truePeak' => -2.0];
        self::assertEquals([$own], $this->call('PUT', '/api/targets', ['targets' => [[...$own, 'loudness' => -17.0], $own]])['targets']);
        self::assertEquals([$own], $this->call('GET', '/api/targets')['targets']);
        $this->call('PUT', '/api/targets', ['targets' => [[...$own, 'loudness' => 3.0]]]);
        self::assertSame(422, $this->statusCode());
        $this->signedIn();
        self::assertSame([], $this->call('GET', '/api/targets')['targets']);
    }

    public function testTamingWhatTheGuardHeldDownSparesItTheWork(): void
    {
        $project = $this->programme();
        $order = ['format' => 'wav', 'target' => ['loudness' => -14.0, 'truePeak' => -1.0]];
        [$before] = $this->handOver($project, [$order]);
        self::assertGreaterThan(3.0, $before['outcome']['guard']['most']);
        $this->edit($project, $before['outcome']['guard']['tame']);
        self::assertSame(200, $this->statusCode());
        [$after] = $this->handOver($project, [$order]);
        self::assertLessThan($before['outcome']['guard']['most'] - 3.0, $after['outcome']['guard']['most']);
        self::assertTrue($after['outcome']['met']);
    }

    public function testChaptersAndCaptionsGoBesideTheFiles(): void
    {
        $project = $this->programme();
        $this->edit($project, ['edit' => 'add-marker', 'marker' => 'k', 'at' => 240_000, 'name' => 'Fog']);
        $this->edit($project, ['edit' => 'set-captions', 'text' => "WEBVTT\n\n00:01.000 --> 00:02.500\nCast off\n"]);
        self::assertJsonStringEqualsJsonString('{"version": "1.2.0", "chapters": [{"startTime": 5, "title": "Fog"}]}', (string) json_encode($this->call('GET', "/api/projects/{$project}/chapters.json")));
        $this->browser->request('GET', "/api/projects/{$project}/captions.vtt");
        self::assertSame("WEBVTT\n\n00:00:01.000 --> 00:00:02.500\nCast off\n", $this->browser->getInternalResponse()->getContent());
        self::assertStringContainsString('Cast off', Sound::run(['ffmpeg', '-v', 'error', '-i', Sound::file((string) $this->browser->getInternalResponse()->getContent(), '.vtt'), '-f', 'srt', '-']));
    }

    public function testAFileOfAnEarlierStateSaysSo(): void
    {
        $project = $this->programme();
        $this->handOver($project, [['format' => 'wav']]);
        self::assertFalse($this->call('GET', "/api/projects/{$project}/deliveries")['deliveries'][0]['outOfDate']);
        $this->edit($project, ['edit' => 'set-fader', 'track' => 'm', 'fader' => -3]);
        self::assertTrue($this->call('GET', "/api/projects/{$project}/deliveries")['deliveries'][0]['outOfDate']);
    }

    public function testTheReportSaysWhatIsInTheFileAndWhatWasDone(): void
    {
        $project = $this->programme();
        $this->edit($project, ['edit' => 'set-fader', 'track' => 'm', 'fader' => 6]);
        $before = $this->call('GET', "/api/projects/{$project}/mix")['revision'];
        $this->edit($project, ['edit' => 'set-fader', 'track' => 'm', 'fader' => 3]);
        [$delivery] = $this->handOver($project, [['format' => 'wav', 'target' => ['loudness' => -16.0, 'truePeak' => -1.0]]], ['recipe' => 'To <b>Nora</b>']);
        /** @var array{outcome: array{integrated: float, range: float, history: array{lufs: list<?float>}}, sha256: string, guarded: list<array{track: string, db: float}>, mix: array{clearPart: ?float, stems: array<string, array{integrated: float}>}, before: array{stems: array<string, array{integrated: float}>}} $report */
        $report = $this->call('GET', "/api/deliveries/{$delivery['id']}/report.json?before={$before}");
        $theirs = self::ebur128($this->fetch($delivery));
        self::assertEqualsWithDelta([$theirs['I'], $theirs['LRA']], [$report['outcome']['integrated'], $report['outcome']['range']], 0.15);
        self::assertSame(hash_file('sha256', $this->fetch($delivery)), $report['sha256']);
        self::assertCount(10, $report['outcome']['history']['lufs'], 'a value a second from the third on');
        self::assertSame('M', $report['guarded'][0]['track']);
        self::assertGreaterThan(0.0, $report['guarded'][0]['db']);
        self::assertNotNull($report['mix']['clearPart']);
        self::assertGreaterThan($report['mix']['stems']['music']['integrated'], $report['before']['stems']['music']['integrated']);

        $this->browser->request('GET', "/api/deliveries/{$delivery['id']}/report.html?before={$before}");
        $html = (string) $this->browser->getInternalResponse()->getContent();
        foreach (['On target:', '−16.0 LUFS', 'Before and after', "Revision {$before}", 'To &lt;b&gt;Nora', 'Clearance of the speech'] as $said) {
            self::assertStringContainsString($said, $html);
        }
        self::assertStringNotContainsString('<script', $html);
        $this->browser->request('GET', "/api/deliveries/{$delivery['id']}/report.pdf");
        self::assertStringStartsWith('%PDF-', (string) $this->browser->getInternalResponse()->getContent());
        $this->browser->request('GET', "/api/deliveries/{$delivery['id']}/report.csv");
        self::assertCount(11, explode("\n", trim((string) $this->browser->getInternalResponse()->getContent())));

        $waiting = $this->call('POST', "/api/projects/{$project}/handovers", ['files' => [['format' => 'wav']]])['deliveries'][0];
        self::assertStringContainsString('not finished', $this->refusal('GET', "/api/deliveries/{$waiting['id']}/report.html"));
        self::assertSame(409, $this->statusCode());
    }
}
