<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use Wattage\Tests\support\Sound;
use Wattage\Tests\support\Voice;

/** Predicted loudness and buried speech over HTTP, with the fixes it offers. */
final class FiguresTest extends ApiTestCase
{
    public function testBuriedSpeechIsFoundClearedAndAccepted(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $voice = $this->bringIn($project, 'voice.wav', Voice::wav([[1.0, 3.0], [5.0, 6.0]], 6.0, 0.14))['id'];
        $bed = $this->bringIn($project, 'bed.wav', self::sound('0.1*sin(2*PI*440*t)'))['id'];
        foreach ([
            ['edit' => 'add-track', 'track' => 's', 'name' => 'S', 'stem' => 'speech'],
            ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music'],
            ['edit' => 'add-clip', 'track' => 's', 'clip' => 'voice', 'source' => $voice, 'at' => 0],
            ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'bed', 'source' => $bed, 'at' => 0],
        ] as $edit) {
            $revision = $this->edit($project, $edit)['revision'];
        }
        $figures = $this->figures($project, $revision);
        self::assertEqualsWithDelta(0.0, $figures['clearPart'], 0.01);
        self::assertCount(2, $figures['buried'], 'somebody speaks from 1 s to 3 s and from 5 s on');
        [$first] = $figures['buried'];
        self::assertEqualsWithDelta(1.0, $first['from'] / 48_000, 0.1);
        self::assertEqualsWithDelta(3.0, $first['to'] / 48_000, 0.15);
        self::assertSame(['m', ['m'], null], [$first['covering'], $first['dipped'], $first['accepted']]);
        self::assertEqualsWithDelta(15.3 - $first['worst'], -$first['dip'], 0.15);
        self::assertNotNull($figures['programme']['integrated']);
        self::assertSame(['s', 'm'], array_column($figures['tracks'], 'id'));

        $clarity = $this->call('GET', "/api/projects/{$project}/revisions/{$revision}/clarity");
        self::assertSame([$revision, false, [1, 5]], [$clarity['revision'], $clarity['tooLong'], array_map(static fn (array $run): int => (int) round($run[0] / 10), $clarity['clarity'])]);
        self::assertGreaterThan(0, $clarity['average']);
        self::assertCount(20, array_filter($clarity['clarity'][0][1], static fn (int $value): bool => $value <= 100), 'a value every 100 ms');
        self::assertContains('m', array_column($clarity['covered'], 'track'), 'the tone covers some of it');

        $cleared = $this->edit($project, $first['dipEdit'])['revision'];
        self::assertCount(1, $this->figures($project, $cleared)['buried']);
        $all = $this->edit($project, $figures['clearAll']);
        self::assertSame('Change 2 ranges', $all['label']);
        self::assertSame([], $this->figures($project, $all['revision'])['buried']);
        self::assertEquals(1.0, $this->figures($project, $all['revision'])['clearPart']);
        $this->step('POST', $project, 'undo');

        $accepted = $this->edit($project, ['edit' => 'accept-buried', 'from' => 5 * 48_000, 'to' => 6 * 48_000, 'note' => 'The horn is meant to win.'])['revision'];
        $figures = $this->figures($project, $accepted);
        self::assertSame('The horn is meant to win.', $figures['buried'][0]['accepted']);
        self::assertNull($figures['clearAll'], 'what is accepted is let alone');
        $this->edit($project, ['edit' => 'accept-buried', 'from' => 5 * 48_000, 'to' => 6 * 48_000]);

        $aim = $this->edit($project, ['edit' => 'set-aim', 'clearance' => 4]);
        self::assertSame('Aim for 4 LU of clearance', $aim['label']);
        self::assertEquals(4, $aim['changes']['aim']['clearance']);
        self::assertSame([], $this->figures($project, $aim['revision'])['buried']);
    }

    /** What was measured of a source only bounds its peaks; the programme's highest sample is exact all the same, also after it was tamed. */
    public function testTheHighestSampleIsExactBeforeAndAfterItIsTamed(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $tone = $this->bringIn($project, 'tone.wav', self::sound('0.1*sin(2*PI*440*t)'))['id'];
        $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'stem' => 'music', 'clip' => 'c', 'source' => $tone, 'at' => 0]);
        $loud = $this->edit($project, ['edit' => 'dip-range', 'clips' => ['c'], 'from' => 48_000, 'to' => 72_000, 'by' => 22, 'ramp' => 480])['revision'];
        $figures = $this->figures($project, $loud);
        self::assertTrue($figures['over']['exact']);
        self::assertEqualsWithDelta(2.0, $figures['programme']['peak'], 0.05);
        self::assertCount(1, $figures['over']['places']);
        self::assertEqualsWithDelta([1.0, 1.5, 2.0], [$figures['over']['places'][0][0] / 48_000, $figures['over']['places'][0][1] / 48_000, $figures['over']['places'][0][2]], 0.11);

        $peaks = $this->call('POST', "/api/projects/{$project}/peaks", ['clips' => ['c'], 'ceiling' => -3])['peaks'];
        self::assertSame($peaks, array_values(array_filter($peaks, static fn (array $p): bool => $p['db'] <= $peaks[0]['db'])), 'worst first');
        $tamed = $this->edit($project, ['edit' => 'tame', 'notches' => array_map(static fn (array $p): array => array_intersect_key($p, array_flip(['clip', 'at', 'by', 'before', 'after', 'hold'])), $peaks)])['revision'];
        $figures = $this->figures($project, $tamed);
        self::assertEqualsWithDelta(-3.0, $figures['programme']['peak'], 0.1);
        self::assertSame([], $figures['over']['places']);
        self::assertFalse($figures['verdict']['mayPass']);
    }

    public function testARuleIsTriedThenKeptFollowsTheSpeechAndLeavesCorrectionsAlone(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $voice = $this->bringIn($project, 'voice.wav', Voice::wav([[1.0, 3.0], [5.0, 6.0]], 6.0, 0.07))['id'];
        $bed = $this->bringIn($project, 'bed.wav', self::sound('0.04*sin(2*PI*440*t)'))['id'];
        foreach ([
            ['edit' => 'add-track', 'track' => 's', 'name' => 'S', 'stem' => 'speech'],
            ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music'],
            ['edit' => 'add-clip', 'track' => 's', 'clip' => 'v', 'source' => $voice, 'at' => 0],
            ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'b', 'source' => $bed, 'at' => 0],
        ] as $edit) {
            $this->edit($project, $edit);
        }
        $rule = ['id' => 'r', 'name' => 'Music under speech', 'targets' => ['m'], 'depth' => -12];
        $plan = $this->call('POST', "/api/projects/{$project}/ducking", ['rule' => $rule]);
        self::assertSame('found', $plan['moments'][0]['heard']);
        self::assertEqualsWithDelta(1.0, $plan['moments'][0]['from'] / 48_000, 0.06);
        self::assertSame(['m'], array_merge(...array_column($plan['lanes'], 'tracks')));
        self::assertNotEmpty($plan['lanes'][0]['schedule']);
        $kept = $this->edit($project, $plan['edit']);
        self::assertSame('Duck: Music under speech', $kept['label']);
        self::assertSame('r', $kept['changes']['rules'][0]['id']);
        self::assertNotEmpty($kept['changes']['changedTracks'][0]['duckingLevels']);
        self::assertSame([], $this->figures($project, $kept['revision'])['outOfDate']);

        $moved = $this->edit($project, ['edit' => 'move-clip', 'clip' => 'v', 'track' => 's', 'at' => 48_000])['revision'];
        self::assertSame(['m'], $this->figures($project, $moved)['outOfDate']);
        $refreshed = $this->edit($project, $this->call('POST', "/api/projects/{$project}/ducking", [])['edit']);
        self::assertSame('Bring ducking up to date', $refreshed['label']);
        self::assertSame([], $this->figures($project, $refreshed['revision'])['outOfDate']);

        // By choice it follows by itself, in the same step.
        $this->edit($project, $this->call('POST', "/api/projects/{$project}/ducking", ['rule' => [...$rule, 'follows' => true]])['edit']);
        $back = $this->edit($project, ['edit' => 'move-clip', 'clip' => 'v', 'track' => 's', 'at' => 0]);
        self::assertSame([], $this->figures($project, $back['revision'])['outOfDate']);
        self::assertNotEmpty($back['changes']['changedTracks'][0]['ducking']['curve']);

        $gone = $this->edit($project, $this->call('POST', "/api/projects/{$project}/ducking", ['without' => 'r'])['edit']);
        self::assertSame([[], false], [$gone['changes']['rules'], isset($gone['changes']['changedTracks'][0]['ducking'])]);
    }

    public function testWhatMetersShowIsThatOfEachTrackStemAndTheProgrammeMinuteByMinute(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $tone = $this->bringIn($project, 'tone.wav', self::sound('0.1*sin(2*PI*997*t)'))['id'];
        foreach ([
            ['edit' => 'add-track', 'track' => 'a', 'name' => 'A', 'stem' => 'music'],
            ['edit' => 'add-track', 'track' => 'b', 'name' => 'B', 'stem' => 'effects'],
            ['edit' => 'add-clip', 'track' => 'a', 'clip' => 'one', 'source' => $tone, 'at' => 56 * 48_000],
            ['edit' => 'add-clip', 'track' => 'b', 'clip' => 'two', 'source' => $tone, 'at' => 56 * 48_000],
            ['edit' => 'set-fader', 'track' => 'b', 'fader' => -6],
            ['edit' => 'set-zone', 'stem' => 'music', 'low' => -50, 'high' => -30],
        ] as $edit) {
            $revision = $this->edit($project, $edit)['revision'];
        }
        $first = array_column($this->call('GET', "/api/projects/{$project}/revisions/{$revision}/moments/0")['meters'], null, 'of');
        $second = array_column($this->call('GET', "/api/projects/{$project}/revisions/{$revision}/moments/1")['meters'], null, 'of');
        self::assertSame(['programme', 'speech', 'music', 'ambience', 'effects', 'track a', 'track b'], array_keys($first));
        self::assertCount(600, $first['programme']['momentary']);
        self::assertNull($first['programme']['momentary'][500], 'before it begins it is silent');
        self::assertNull($second['speech']['momentary'][10]);
        // 997 Hz reads its peak level less 3.01 in one channel (ITU-R BS.1770), so as much as its peak in two.
        self::assertEqualsWithDelta(-20.0, $first['track a']['momentary'][599], 0.1);
        self::assertEqualsWithDelta(-26.0, $second['effects']['shortTerm'][5], 0.1, 'a window reaches back over the minute');
        self::assertEqualsWithDelta(-19.0, $second['programme']['momentary'][5], 0.1);
        self::assertSame([], array_merge(...array_column($this->call('GET', "/api/projects/{$project}/revisions/{$revision}/moments/9")['meters'], 'momentary')), 'after the end there is nothing');

        $figures = $this->figures($project, $revision);
        self::assertFalse($figures['verdict']['met']);
        self::assertSame([['track' => 'a', 'above' => true]], array_map(static fn (array $a): array => \array_slice($a, 0, 2), $figures['astray']));
        self::assertEqualsWithDelta(7.0, $figures['astray'][0]['worst'], 0.15);
    }

    public function testClipsAreEvenedUpAndSteadiedByEditsThatAreLookedAtFirst(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $voice = $this->bringIn($project, 'voice.wav', Voice::wav([[0.0, 1.4, 0.3], [1.9, 3.1, 0.3], [3.6, 4.8], [5.3, 6.0]], 6.0, 0.03))['id'];
        foreach ([
            ['edit' => 'add-track', 'track' => 's', 'name' => 'S', 'stem' => 'speech'],
            ['edit' => 'add-clip', 'track' => 's', 'clip' => 'a', 'source' => $voice, 'at' => 0],
            ['edit' => 'add-clip', 'track' => 's', 'clip' => 'b', 'source' => $voice, 'at' => 480_000],
            ['edit' => 'set-clip-gain', 'clips' => ['b'], 'gain' => -9],
        ] as $edit) {
            $this->edit($project, $edit);
        }
        $plan = $this->call('POST', "/api/projects/{$project}/even-up", ['clips' => ['a', 'b'], 'by' => 'average', 'to' => ['clip' => 'a']]);
        self::assertEqualsWithDelta(9.0, $plan['rows'][1]['by'], 0.05);
        /** @var list<array{clip: string, gain: float}> $gains */
        $gains = $plan['edit']['gains'] ?? [];
        self::assertSame(['b'], array_column($gains, 'clip'));
        self::assertSame(['b'], array_column($plan['clips'], 'id'));
        self::assertEqualsWithDelta($gains[0]['gain'], $plan['clips'][0]['level'], 0.001);
        self::assertSame('Even up tone', str_replace('voice.wav', 'tone', $this->edit($project, $plan['edit'])['label']));
        $stem = $this->call('POST', "/api/projects/{$project}/even-up", ['clips' => ['a'], 'by' => 'average', 'to' => 'stem']);
        self::assertEquals(-20, $stem['rows'][0]['target']);

        $plan = $this->call('POST', "/api/projects/{$project}/steady", ['clips' => ['a', 'b'], 'to' => 'own', 'window' => 1]);
        self::assertLessThan($plan['rows'][0]['before'], $plan['rows'][0]['after']);
        self::assertGreaterThan(20, \count($plan['rows'][0]['levelsAfter']));
        // Only what is spoken is told, before and after at the same moments.
        self::assertContains(null, $plan['rows'][0]['levelsBefore']);
        self::assertSame(array_map(is_null(...), $plan['rows'][0]['levelsBefore']), array_map(is_null(...), $plan['rows'][0]['levelsAfter']));
        $step = $this->edit($project, $plan['edit']);
        self::assertSame('Steady 2 clips', $step['label']);
        // What could be heard before is what it became.
        self::assertEquals($step['changes']['changedClips'], $plan['clips']);
        self::assertCount($plan['rows'][0]['keyframes'], $step['changes']['changedClips'][0]['curve']);

        foreach ([
            ['even-up', ['clips' => ['a'], 'by' => 'ear', 'to' => 'stem']],
            ['even-up', ['clips' => [], 'by' => 'peak', 'to' => 'stem']],
            ['even-up', ['clips' => ['gone'], 'by' => 'peak', 'to' => -20]],
            ['even-up', ['clips' => ['a'], 'by' => 'peak', 'to' => 7]],
            ['steady', ['clips' => ['a'], 'to' => 'theirs']],
            ['steady', ['clips' => ['a'], 'to' => 'own', 'window' => 60]],
        ] as [$path, $body]) {
            self::assertNotSame('', $this->call('POST', "/api/projects/{$project}/{$path}", $body)['detail']);
            self::assertSame(422, $this->statusCode());
        }
    }

    public function testFiguresAreExportedAsTables(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        $source = $this->bringIn($project, 'bed.wav', self::sound('0.1*sin(2*PI*440*t)'))['id'];
        $this->edit($project, ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music']);
        $revision = $this->edit($project, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'c', 'source' => $source, 'at' => 0])['revision'];
        $this->browser->request('GET', "/api/projects/{$project}/revisions/{$revision}/figures.csv");
        self::assertStringContainsString('figures.csv', (string) $this->browser->getResponse()->headers->get('Content-Disposition'));
        $lines = explode("\r\n", trim($this->browser->getInternalResponse()->getContent()));
        self::assertSame('seconds,momentary_lufs,short_term_lufs,speech_momentary_lufs,rest_momentary_lufs,clearance_lu', $lines[0]);
        /** @var array{columns: list<string>, rows: non-empty-list<list<?float>>, summary: array{programme: array{maxMomentary: float}}} $json */
        $json = $this->call('GET', "/api/projects/{$project}/revisions/{$revision}/figures.json");
        self::assertSame(explode(',', $lines[0]), $json['columns']);
        self::assertCount(\count($lines) - 1, $json['rows']);
        self::assertNull($json['rows'][0][1], 'no whole window yet');
        self::assertEqualsWithDelta($json['summary']['programme']['maxMomentary'], max(-100.0, ...array_column($json['rows'], 1)), 0.05);
        self::assertSame((string) $json['rows'][9][1], explode(',', $lines[10])[1]);
    }

    public function testAnEmptyProjectHasNothingToSay(): void
    {
        $this->signedIn();
        $figures = $this->figures($this->newProject(), 1);
        self::assertSame([null, null, [], [], null], [$figures['programme']['integrated'], $figures['clearPart'], $figures['buried'], $figures['speech'], $figures['clearAll']]);
    }

    public function testAnAimOutOfReachIsRefused(): void
    {
        $this->signedIn();
        $project = $this->newProject();
        foreach ([['clearance' => 2], ['clearance' => 41], ['sensitivity' => 0], ['loudness' => 3], []] as $aim) {
            $this->edit($project, ['edit' => 'set-aim', ...$aim]);
            self::assertSame(422, $this->statusCode());
        }
        $this->edit($project, ['edit' => 'accept-buried', 'from' => 0, 'to' => 10, 'note' => str_repeat('x', 300)]);
        self::assertSame(422, $this->statusCode());
    }

    private static function sound(string $expression): string
    {
        return Sound::run(['ffmpeg', '-v', 'error', '-f', 'lavfi', '-i', "aevalsrc={$expression}:s=48000:d=6", '-f', 'wav', '-']);
    }

    /** @return Answer<'Figures'> */
    private function figures(string $project, int $revision): array
    {
        return $this->call('GET', "/api/projects/{$project}/revisions/{$revision}/figures");
    }
}
