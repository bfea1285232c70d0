<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use stdClass;
use Wattage\Tests\support\Sound;
use Wattage\Tests\support\Voice;

/** Room by band, colour and what is taken for speech, as the browser asks for them. */
final class ClearTest extends ApiTestCase
{
    private string $project;

    protected function setUp(): void
    {
        parent::setUp();
        $this->signedIn();
        $this->project = $this->newProject();
        $voice = $this->bringIn($this->project, 'voice.wav', Voice::wav([[1.0, 3.0], [5.0, 6.0]], 6.0, 0.05))['id'];
        $bed = $this->bringIn($this->project, 'bed.wav', Sound::run(['ffmpeg', '-v', 'error', '-f', 'lavfi', '-i', 'aevalsrc=0.05*sin(2*PI*440*t)+0.05*sin(2*PI*1500*t)+0.1*sin(2*PI*90*t):s=48000:d=6', '-f', 'wav', '-']))['id'];
        foreach ([
            ['edit' => 'add-track', 'track' => 's', 'name' => 'S', 'stem' => 'speech'],
            ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music'],
            ['edit' => 'add-clip', 'track' => 's', 'clip' => 'v', 'source' => $voice, 'at' => 0],
            ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'b', 'source' => $bed, 'at' => 0],
        ] as $edit) {
            $this->edit($this->project, $edit);
        }
    }

    public function testABandRuleIsTriedWithWhatItTakesAndKeptInALaneOfItsOwn(): void
    {
        $plan = $this->plan(['part' => 'band-first', 'clarity' => 40, 'moving' => true]);
        self::assertNotEmpty($plan['lanes'][0]['bandSchedule']);
        self::assertLessThan($plan['taken']['plain'], $plan['taken']['now']);
        self::assertLessThan(0, $plan['dips'][0]['band']);
        $kept = $this->edit($this->project, $plan['edit']);
        $track = $kept['changes']['changedTracks'][0];
        self::assertNotEmpty($track['band']['curve']);
        self::assertSame($plan['lanes'][0]['bandSchedule'], $track['bandLevels']);
        self::assertSame([], $this->figures($kept['revision'])['outOfDate']);
        // Corrected by hand it is held, with the speech that sounds there, and let go of.
        $held = $this->edit($this->project, ['edit' => 'dip-range', 'track' => 'm', 'lane' => 'band', 'from' => 72_000, 'to' => 96_000, 'by' => 4, 'ramp' => 2400])['changes']['changedTracks'][0]['band']['held'];
        self::assertCount(1, $held);
        self::assertNotNull($held[0]['source']);
        $gone = $this->edit($this->project, $this->call('POST', "/api/projects/{$this->project}/ducking", ['without' => 'r'])['edit']);
        self::assertCount(1, $gone['changes']['changedTracks'][0]['band']['held'], 'what was corrected by hand stays');
        // A fixed plain dip is told without what it takes.
        self::assertNull($this->plan(['depth' => -12])['taken']);
    }

    public function testAHushLowersPausesOfTheVoiceAndALonelyMicrophoneTakesNoTurns(): void
    {
        $plan = $this->plan(['kind' => 'hush', 'targets' => ['s'], 'depth' => -12, 'breaths' => false]);
        self::assertSame(['s'], array_merge(...array_column($plan['lanes'], 'tracks')));
        self::assertNotEmpty($plan['dips']);
        $this->call('POST', "/api/projects/{$this->project}/ducking", ['rule' => ['id' => 'r', 'name' => 'R', 'kind' => 'turns', 'targets' => ['s'], 'depth' => -12]]);
        self::assertSame(422, $this->statusCode());
    }

    /** Gain, band and colour change what is predicted, for clarity as for loudness. */
    /** A call recorded at 8 kHz has no bands above 3.15 kHz: that is said, with what it can reach at most, and what is found stays below it. */
    public function testBandsThatARecordingLacksAreNamed(): void
    {
        $clarity = fn (int $revision): array => $this->call('GET', "/api/projects/{$this->project}/revisions/{$revision}/clarity");
        $added = $this->edit($this->project, ['edit' => 'set-muted', 'track' => 'm', 'muted' => true]);
        self::assertSame([], $clarity($added['revision'])['lacking']);
        $call = $this->bringIn($this->project, 'call.wav', Sound::run(['ffmpeg', '-v', 'error', '-i', Sound::file(Voice::wav([[0.5, 3.5]], 4.0, 0.05), '.wav'), '-ar', '8000', '-f', 'wav', '-']))['id'];
        $this->edit($this->project, ['edit' => 'add-track', 'track' => 'p', 'name' => 'P', 'stem' => 'speech']);
        $added = $this->edit($this->project, ['edit' => 'add-clip', 'track' => 'p', 'clip' => 'c', 'source' => $call, 'at' => 480_000]);
        $found = $clarity($added['revision']);
        self::assertSame([['source' => $call, 'rate' => 8_000, 'hz' => 3_150, 'most' => 82]], $found['lacking']);
        $last = \array_slice($found['clarity'], -1)[0];
        self::assertGreaterThan(100, $last[0]);
        $most = max(0, ...$last[1]);
        self::assertLessThanOrEqual(82, $most);
        self::assertGreaterThan(30, $most);
    }

    public function testColourIsInTheFigures(): void
    {
        $before = $this->figures($this->call('GET', "/api/projects/{$this->project}/mix")['revision']);
        $step = $this->edit($this->project, ['edit' => 'set-clip-colours', 'colours' => [['clip' => 'b', 'colour' => ['lowCut' => ['hertz' => 300, 'slope' => 24]]]]]);
        self::assertSame('Colour of bed.wav', str_replace('“', '', str_replace('”', '', $step['label'])));
        self::assertCount(2, $step['changes']['changedClips'][0]['filters']);
        $after = $this->figures($step['revision']);
        self::assertLessThan($before['stems']['music']['integrated'] - 1.0, $after['stems']['music']['integrated']);
        $track = $this->edit($this->project, ['edit' => 'set-track-colour', 'track' => 'm', 'colour' => ['lowCut' => ['hertz' => 100]]]);
        self::assertCount(1, $track['changes']['changedTracks'][0]['filters']);
        self::assertSame('No colour on M', $this->edit($this->project, ['edit' => 'set-track-colour', 'track' => 'm', 'colour' => new stdClass()])['label']);
    }

    public function testTheColourOfAClipIsBroughtToThatOfAnother(): void
    {
        $plan = $this->call('POST', "/api/projects/{$this->project}/even-colour", ['clips' => ['v', 'b'], 'to' => 'b']);
        self::assertSame(['v'], array_column($plan['rows'], 'clip'));
        self::assertLessThan($plan['rows'][0]['off'], $plan['rows'][0]['left']);
        self::assertCount(18, $plan['rows'][0]['after']);
        $step = $this->edit($this->project, $plan['edit']);
        self::assertEquals($step['changes']['changedClips'], $plan['clips'], 'what could be heard before is what it became');
        self::assertNull($this->call('POST', "/api/projects/{$this->project}/even-colour", ['clips' => ['b'], 'to' => 'b'])['edit']);
    }

    public function testWhatIsTakenForSpeechIsPutRight(): void
    {
        $none = $this->edit($this->project, ['edit' => 'mark-speech', 'tracks' => ['s'], 'from' => 0, 'to' => 200_000, 'as' => 'other']);
        self::assertEquals([['from' => 0, 'to' => 200_000]], $none['changes']['sources'][0]['marks']['other']);
        self::assertGreaterThan(4.5, $this->plan(['depth' => -12])['moments'][0]['from'] / 48_000);
        $this->edit($this->project, ['edit' => 'mark-speech', 'tracks' => ['s'], 'from' => 10_000, 'to' => 40_000, 'as' => 'speech']);
        self::assertSame(10_000, $this->plan(['depth' => -12])['moments'][0]['from']);
    }

    /**
     * @param array<string, mixed> $rule
     *
     * @return Answer<'DuckingPlan'>
     */
    private function plan(array $rule): array
    {
        return $this->call('POST', "/api/projects/{$this->project}/ducking", ['rule' => ['id' => 'r', 'name' => 'R', 'targets' => ['m'], ...$rule]]);
    }

    /** @return Answer<'Figures'> */
    private function figures(int $revision): array
    {
        return $this->call('GET', "/api/projects/{$this->project}/revisions/{$revision}/figures");
    }
}
