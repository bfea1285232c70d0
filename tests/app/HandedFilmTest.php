<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Wattage\Tests\support\Sound;

/** Films with the sound of the timeline, looked into by ffprobe and ffmpeg. */
final class HandedFilmTest extends HandoverTestCase
{
    public function testAFilmThatIsNotCutKeepsItsPictureFrameByFrame(): void
    {
        [$project, $film] = $this->filmed();
        [$delivery] = $this->handOver($project, [['format' => 'film', 'target' => ['loudness' => -16.0, 'truePeak' => -1.0]]], ['tags' => ['title' => 'The Crossing']]);
        self::assertSame(['done', 'Crossing r4.mp4'], [$delivery['state'], $delivery['name']], $delivery['problem'] ?? '');
        $made = $this->fetch($delivery);
        $hash = static fn (string $file): string => Sound::run(['ffmpeg', '-v', 'error', '-i', $file, '-map', '0:v', '-c', 'copy', '-f', 'streamhash', '-']);
        self::assertSame($hash($film), $hash($made), 'copied, not coded');
        self::assertEqualsWithDelta(-16.0, self::ebur128($made)['I'], 0.1);
        self::assertInStep($made, 4);
        $found = Sound::probe($made);
        self::assertSame(['h264', 'aac', 'mov_text'], array_column($found['streams'], 'codec_name'), 'captions are a track of it');
        self::assertSame('The Crossing', $found['format']['tags']['title'] ?? null);
    }

    public function testAFilmAsMatroskaHasItsSoundWithoutLossAndItsPictureAsItWas(): void
    {
        [$project, $film] = $this->filmed();
        $this->edit($project, ['edit' => 'add-marker', 'marker' => 'k', 'at' => 96_000, 'name' => 'Fog']);
        [$whole, $cut] = $this->handOver($project, [['format' => 'matroska', 'bits' => 24], ['format' => 'matroska', 'bits' => 24, 'range' => ['from' => 24_000, 'to' => 7 * 48_000]]]);
        self::assertSame(['done', 'done', 'Crossing r5.mkv'], [$whole['state'], $cut['state'], $whole['name']], $whole['problem'].$cut['problem']);
        $hash = static fn (string $file): string => Sound::run(['ffmpeg', '-v', 'error', '-i', $file, '-map', '0:v', '-c', 'copy', '-bsf:v', 'h264_mp4toannexb', '-f', 'framemd5', '-']);
        $frames = static fn (string $file): int => substr_count($hash($file), "\n0,");
        self::assertSame($frames($film), $frames($this->fetch($whole)));
        $found = Sound::probe($this->fetch($whole));
        self::assertSame([['h264', 'flac', 'subrip'], ['Fog']], [array_column($found['streams'], 'codec_name'), array_map(static fn (array $c): string => $c['tags']['title'], $found['chapters'])]);
        self::assertInStep($this->fetch($whole), 4);
        self::assertInStep($this->fetch($cut), 3);
        self::assertSame('vp9', Sound::probe($this->fetch($cut))['streams'][0]['codec_name'], 'what has to be coded is coded in the open');
    }

    public function testAFilmThatIsCutMovedAndHasAGapIsLaidAsTheTimelineShowsIt(): void
    {
        [$project] = $this->filmed();
        $this->edit($project, ['edit' => 'split', 'cuts' => [['clip' => 'film', 'at' => 4 * 48_000]]]);
        $clips = $this->call('GET', "/api/projects/{$project}/mix")['mix']['clips'];
        $second = array_values(array_filter($clips, static fn (array $clip): bool => 4 * 48_000 === $clip['at']))[0];
        // The second half, 1.52 s later: 38 frames.
        $this->edit($project, ['edit' => 'move-clips', 'clips' => [$second['id']], 'later' => 72_960]);
        self::assertSame(200, $this->statusCode());
        [$delivery, $cut] = $this->handOver($project, [['format' => 'film'], ['format' => 'film', 'range' => ['from' => 24_000, 'to' => 7 * 48_000]]]);
        self::assertSame(['done', 'done'], [$delivery['state'], $cut['state']], ($delivery['problem'] ?? '').($cut['problem'] ?? ''));
        self::assertInStep($this->fetch($delivery), 4);
        self::assertInStep($this->fetch($cut), 2);
        $probed = Sound::probe($this->fetch($delivery))['streams'];
        self::assertEqualsWithDelta(9.52, (float) $probed[0]['duration'], 0.05);
    }

    public function testWithoutAPictureThereIsNoFilm(): void
    {
        $project = $this->programme();
        [$delivery] = $this->handOver($project, [['format' => 'film']]);
        self::assertSame('failed', $delivery['state']);
        self::assertStringContainsString('There is no picture', $delivery['problem']);
    }

    /** @return array{string, string} a project with a film of 8 s that flashes and sounds every 2 s from 0.4 s on, and its file */
    private function filmed(): array
    {
        $this->signedIn();
        $project = $this->newProject();
        $film = Sound::file('', '.mp4');
        $flash = 'between(mod(t\,2)\,0.399\,0.479)';
        Sound::run(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', "color=black:size=64x36:rate=25:duration=8,drawbox=x=0:y=0:w=64:h=36:color=white:t=fill:enable='{$flash}'", '-f', 'lavfi', '-i', "aevalsrc=0.5*sin(2*PI*1000*t)*{$flash}:d=8:s=48000", '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'pcm_s16le', '-f', 'mov', $film]);
        $source = $this->bringIn($project, 'crossing.mov', (string) file_get_contents($film), 1 << 20)['id'];
        $this->work(); // the small picture
        $this->edit($project, ['edit' => 'add-track', 'track' => 'p', 'name' => 'Film', 'stem' => 'speech']);
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'p', 'clip' => 'film', 'source' => $source, 'at' => 0]);
        $this->edit($project, ['edit' => 'set-captions', 'text' => "WEBVTT\n\n00:01.000 --> 00:02.000\nCast off\n"]);

        return [$project, $film];
    }

    /** Every flash has its burst, within a frame of 40 ms. */
    private static function assertInStep(string $film, int $flashes): void
    {
        $bright = Sound::integers('C*', Sound::run(['ffmpeg', '-v', 'error', '-i', $film, '-vf', 'fps=25,scale=1:1,format=gray', '-f', 'rawvideo', '-']));
        $sound = Sound::floats(Sound::run(['ffmpeg', '-v', 'error', '-i', $film, '-ac', '1', '-ar', '8000', '-f', 'f32le', '-']));
        $seen = $heard = [];
        foreach ($bright as $i => $value) {
            $value > 128 && ($bright[$i - 1] ?? 0) <= 128 && $seen[] = $i / 25;
        }
        $quiet = 4000;
        foreach ($sound as $i => $value) {
            abs($value) > 0.1 && $quiet >= 4000 && $heard[] = $i / 8000;
            $quiet = abs($value) > 0.1 ? 0 : $quiet + 1;
        }
        self::assertCount($flashes, $seen);
        self::assertCount($flashes, $heard);
        self::assertEqualsWithDelta($seen, $heard, 0.04);
    }
}
