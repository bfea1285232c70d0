<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

/** Snapshots, comparing, and edits that stand for the newest one. */
final class CompareTest extends ApiTestCase
{
    public function testASnapshotIsTakenUpAgainWithoutLosingThePresent(): void
    {
        [$project] = $this->projectWithTone();
        $before = $this->call('GET', "/api/projects/{$project}/mix");
        $snapshot = $this->call('POST', "/api/projects/{$project}/snapshots", ['name' => ' Loud bed ']);
        self::assertSame(['Loud bed', $before['revision'], 'Ada'], [$snapshot['name'], $snapshot['revision'], $snapshot['author']]);
        $this->edit($project, ['edit' => 'set-clip-gain', 'clips' => ['tone'], 'gain' => -12]);
        $present = $this->call('GET', "/api/projects/{$project}/mix");

        $base = $this->call('GET', "/api/projects/{$project}/mix")['revision'];
        $step = $this->call('POST', "/api/snapshots/{$snapshot['id']}/take-up", headers: ['If-Match' => "\"{$base}\""]);
        self::assertSame('Go back to snapshot “Loud bed”', $step['label']);
        self::assertEquals($before['mix'], $this->call('GET', "/api/projects/{$project}/mix")['mix']);
        $this->step('POST', $project, 'undo');
        self::assertEquals($present['mix'], $this->call('GET', "/api/projects/{$project}/mix")['mix']);

        self::assertSame('Quiet', $this->call('PATCH', "/api/snapshots/{$snapshot['id']}", ['name' => 'Quiet'])['name']);
        $this->call('PATCH', "/api/snapshots/{$snapshot['id']}", ['name' => str_repeat('x', 300)]);
        self::assertSame(422, $this->statusCode());
        $this->call('DELETE', "/api/snapshots/{$snapshot['id']}");
        self::assertSame([], $this->call('GET', "/api/projects/{$project}/snapshots")['snapshots']);
    }

    public function testTwoStatesAreComparedInWordsAndByLoudness(): void
    {
        [$project, $first] = $this->projectWithTone();
        $second = $this->edit($project, ['edit' => 'set-clip-gain', 'clips' => ['tone'], 'gain' => -6])['revision'];
        $found = $this->call('GET', "/api/projects/{$project}/compare?from={$first}&to={$second}");
        self::assertSame(['tone.wav is at −6.0 dB instead of 0.0 dB (−6.0 dB).'], $found['changes']);
        self::assertEqualsWithDelta(-6.0, $found['loudness'][1] - $found['loudness'][0], 0.05);
        self::assertEquals($this->call('GET', "/api/projects/{$project}/mix")['mix'], $this->call('GET', "/api/projects/{$project}/revisions/{$second}/mix")['mix']);
        $this->call('GET', "/api/projects/{$project}/compare?from={$first}&to=999");
        self::assertSame(404, $this->statusCode());
    }

    public function testAnEditThatStandsForTheNewestOneIsOneStepToUndo(): void
    {
        [$project, $base] = $this->projectWithTone();
        $dip = ['edit' => 'dip-range', 'clips' => ['tone'], 'from' => 20_000, 'to' => 60_000, 'ramp' => 4800];
        $first = $this->edit($project, [...$dip, 'by' => -6]);
        $deeper = $this->call('POST', "/api/projects/{$project}/edits?instead=1", [...$dip, 'by' => -9, 'ramp' => 9600], ['If-Match' => "\"{$first['revision']}\""]);
        self::assertSame(200, $this->statusCode());
        $curve = $deeper['changes']['changedClips'][0]['curve'];
        self::assertSame([10_400, 20_000, 60_000, 69_600], array_column($curve, 'at'));
        self::assertEquals(-9, $curve[1]['level']);
        self::assertSame($base, $this->step('POST', $project, 'undo')['revision']);

        $this->call('POST', "/api/projects/{$project}/edits?instead=1", [...$dip, 'by' => -3], ['If-Match' => "\"{$first['revision']}\""]);
        self::assertSame(409, $this->statusCode(), 'only the newest edit can be adjusted');
    }

    public function testPeaksAreListedAndTamed(): void
    {
        [$project] = $this->projectWithTone();
        $peaks = $this->call('POST', "/api/projects/{$project}/peaks", ['clips' => ['tone'], 'ceiling' => -23, 'from' => 0, 'to' => 4000])['peaks'];
        self::assertNotEmpty($peaks);
        // ffmpeg's sine has a level of 1/8, and its way to stereo takes 3 dB.
        self::assertEqualsWithDelta(-21.07, max(array_column($peaks, 'db')), 0.1);
        $this->edit($project, ['edit' => 'tame', 'notches' => array_map(static fn (array $p): array => array_intersect_key($p, array_flip(['clip', 'at', 'by', 'before', 'after', 'hold'])), $peaks)]);
        self::assertSame(200, $this->statusCode());
        self::assertSame([], $this->call('POST', "/api/projects/{$project}/peaks", ['clips' => ['tone'], 'ceiling' => -10])['peaks']);
        foreach ([['clips' => ['tone'], 'ceiling' => 99], ['clips' => ['gone'], 'ceiling' => -3], ['clips' => ['tone'], 'ceiling' => -3, 'from' => 9, 'to' => 3]] as $bad) {
            $this->call('POST', "/api/projects/{$project}/peaks", $bad);
            self::assertSame(422, $this->statusCode());
        }
    }

    /** Issue: undo of any edit gives an equal mix. The edits are those that the core's own test lists. */
    public function testUndoOfAnyEditGivesAnEqualMix(): void
    {
        [$project] = $this->projectWithTone();
        $edits = [
            ['edit' => 'set-fade', 'clips' => ['tone'], 'edge' => 'out', 'length' => '0.5 s', 'shape' => 's'],
            ['edit' => 'open-channels', 'clips' => ['tone'], 'open' => true],
            ['edit' => 'set-channels', 'clips' => ['tone'], 'mode' => 'swapped'],
            ['edit' => 'split', 'cuts' => [['clip' => 'tone', 'at' => 20_000]]],
            ['edit' => 'duplicate-clips', 'clips' => ['tone']],
            ['edit' => 'loop-clip', 'clip' => 'tone', 'until' => 400_000, 'overlap' => 4800],
            ['edit' => 'insert-time', 'at' => 30_000, 'length' => 48_000],
            ['edit' => 'remove-range', 'from' => 10_000, 'to' => 30_000, 'close' => true],
            ['edit' => 'set-range', 'clips' => ['tone'], 'from' => 20_000, 'to' => 30_000, 'level' => 'silence', 'ramp' => 480],
            ['edit' => 'add-marker', 'marker' => 'm', 'at' => 5, 'name' => 'Here'],
            ['edit' => 'set-hue', 'track' => 'm', 'hue' => 'plum'],
            ['edit' => 'set-locked', 'track' => 'm', 'locked' => true],
        ];
        foreach ($edits as $edit) {
            $before = $this->call('GET', "/api/projects/{$project}/mix")['mix'];
            $this->edit($project, $edit);
            self::assertSame(200, $this->statusCode(), $edit['edit']);
            self::assertNotEquals($before, $this->call('GET', "/api/projects/{$project}/mix")['mix'], $edit['edit']);
            $this->step('POST', $project, 'undo');
            self::assertEquals($before, $this->call('GET', "/api/projects/{$project}/mix")['mix'], $edit['edit']);
        }
    }

    /** @return array{string, int} project and newest revision: a tone of two seconds on a track */
    private function projectWithTone(): array
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'tone.wav', self::media(2.0));
        self::assertSame('ready', $source['state']);
        // ffmpeg's sine of 1/8 has an RMS of −21.07 dBFS, its way to stereo takes 3 dB, the K-weighting at 440 Hz 0.7 dB.
        self::assertEqualsWithDelta(-24.8, $source['averageDbfs'], 0.1);
        self::assertSame('none', $source['picture']);
        $this->edit($project, ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music']);
        $step = $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'tone', 'source' => $source['id'], 'at' => 0]);

        return [$project, $step['revision']];
    }
}
