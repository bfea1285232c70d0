<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Timeline;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Captions\Cue;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\TimeMap;
use Wattage\Core\Timeline\Accepted;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\Lanes;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\MuteLane;
use Wattage\Core\Timeline\PanLane;
use Wattage\Core\Timeline\Picture;
use Wattage\Core\Timeline\Retiming;
use Wattage\Core\Timeline\Source;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Random;

/** Everything that has a time moves by one map, and every sound keeps the level, pan and mute that it had. */
final class RetimingTest extends TestCase
{
    private const S = Mixes::SECOND;
    private const SEAM = 480;

    public function testEveryMomentKeepsItsLevelPanAndMute(): void
    {
        foreach (range(1, 400) as $seed) {
            $random = new Random($seed);
            $lanes = self::lanes($random);
            $at = $random->int(0, 100_000);
            $map = 0 === $seed % 2 ? TimeMap::inserting($at, $random->int(1, 50_000)) : TimeMap::removing(Span::of($at, $at + $random->int(1, 50_000)));
            $before = Mixes::voiceOverBed();
            $before = $before->withTrack($before->track('music')->withLanes($lanes)->withDucking(new Ducking($lanes->level)));
            $after = (new Retiming($map))->tracks($before, ['music'])->track('music');
            for ($i = 0; $i < 60; ++$i) {
                $position = $random->int(0, 160_000);
                $now = $map->moment($position);
                // A lane crosses a seam within 10 ms.
                if (null === $now || ($map->removed > 0 && $now >= $map->at && $now < $map->at + self::SEAM)) {
                    continue;
                }
                $where = "seed {$seed}, at {$position}";
                foreach ([[$lanes->level, $after->lanes->level], [$lanes->level, $after->ducking->curve]] as [$old, $new]) {
                    $level = $old->levelAt($position);
                    self::assertTrue($level->isSilence() ? $new->levelAt($now)->isSilence() : abs($level->db - $new->levelAt($now)->db) < 1e-6, $where);
                }
                self::assertSame($lanes->mute->at($position), $after->lanes->mute->at($now), $where);
                if (!$lanes->pan->isEmpty()) {
                    self::assertEqualsWithDelta($lanes->pan->at($position), $after->lanes->pan->at($now), 1e-6, $where);
                }
            }
        }
    }

    public function testBlankTimeHoldsWhatALaneHad(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-range', 'track' => 'music', 'lane' => 'level', 'from' => 2 * self::S, 'to' => 4 * self::S, 'level' => -9, 'ramp' => 4800]);
        $after = Mixes::edited($mix, ['edit' => 'insert-time', 'at' => 3 * self::S, 'length' => 5 * self::S])->track('music')->lanes->level;
        foreach ([3, 5, 7, 8] as $second) {
            self::assertSame(-9.0, $after->levelAt($second * self::S)->db);
        }
        self::assertSame(0.0, $after->levelAt(10 * self::S)->db);
    }

    public function testInsertingAndTakingOutTheSameTimeGivesTheSameMix(): void
    {
        $mix = self::full();
        $there = Mixes::edited($mix, ['edit' => 'insert-time', 'at' => 4 * self::S, 'length' => 3 * self::S]);
        self::assertSame([[12 * self::S, 13 * self::S]], self::pairs($there->captions), 'captions');
        self::assertSame([12 * self::S], array_column($there->markers, 'at'), 'markers');
        self::assertSame([[12 * self::S, 13 * self::S]], self::pairs($there->aim->accepted), 'accepted');
        self::assertSame([[12 * self::S, 13 * self::S]], array_map(self::pair(...), $there->track('music')->ducking->held), 'held');
        self::assertSame([[12 * self::S, 13 * self::S]], array_map(self::pair(...), $there->rule('r')->added), 'what a rule was told');
        self::assertSame([[3 * self::S, self::S, 0], [7 * self::S, 7 * self::S, self::S]], array_map(static fn (Picture $p): array => [$p->at, $p->length, $p->in], array_values($there->pictures)), 'a picture is cut as sound is');
        $back = Mixes::edited($there, ['edit' => 'remove-range', 'from' => 4 * self::S, 'to' => 7 * self::S, 'close' => true]);
        self::assertEquals([$mix->captions, $mix->markers, $mix->aim, $mix->rules], [$back->captions, $back->markers, $back->aim, $back->rules]);
        self::assertEquals($mix->track('music')->ducking->held, $back->track('music')->ducking->held);
    }

    public function testWhatIsTakenOutTakesWhatStandsInItAlong(): void
    {
        $after = Mixes::edited(self::full(), ['edit' => 'remove-range', 'from' => 8 * self::S, 'to' => 12 * self::S, 'close' => true]);
        self::assertSame([[], [], [], []], [$after->captions, $after->markers, $after->aim->accepted, $after->track('music')->ducking->held]);
        $half = Mixes::edited(self::full(), ['edit' => 'remove-range', 'from' => (int) (9.5 * self::S), 'to' => 12 * self::S, 'close' => true]);
        self::assertSame([[9 * self::S, (int) (9.5 * self::S)]], self::pairs($half->captions), 'half of a caption is left');
    }

    public function testOnSomeTracksOnlyTheseMoveAndTheLabelSaysSo(): void
    {
        $mix = self::full();
        $edit = ['edit' => 'insert-time', 'at' => 4 * self::S, 'length' => self::S, 'tracks' => ['music']];
        $after = Mixes::edited($mix, $edit);
        self::assertEquals([$mix->captions, $mix->markers, $mix->aim, $mix->pictures], [$after->captions, $after->markers, $after->aim, $after->pictures]);
        self::assertStringEndsWith('on Music only', (new EditReader($mix, Mixes::sources()))->read($edit)->label($mix));
        self::assertSame([7.0, -9.0], [round($after->track('music')->lanes->level->keyframes[0]->position / self::S, 3), $after->track('music')->lanes->level->levelAt(8 * self::S)->db], 'its lanes go with its clips');
        self::assertEquals($mix->track('music')->ducking, $after->track('music')->ducking, 'its ducking stays with the speech, which stays');
        $both = Mixes::edited($mix, [...$edit, 'tracks' => ['music', 'speech']]);
        self::assertSame([[10 * self::S, 11 * self::S]], array_map(self::pair(...), $both->track('music')->ducking->held), 'and goes with it');
    }

    public function testClosingTrimmingAndMovingWithRippleTakeLanesAlongToo(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 4 * self::S]]]);
        $mix = Mixes::edited($mix, ['edit' => 'set-range', 'track' => 'music', 'lane' => 'level', 'from' => 6 * self::S, 'to' => 8 * self::S, 'level' => -9, 'ramp' => 480]);
        $low = static fn (Mix $m): array => array_keys(array_filter(array_map(static fn (int $tenth): float => $m->track('music')->lanes->level->levelAt($tenth * 4800)->db, range(0, 120)), static fn (float $db): bool => -9.0 === $db));
        $span = static fn (Mix $m): array => [min($low($m)), max($low($m))];
        self::assertSame([60, 80], $span($mix));
        self::assertSame([20, 40], $span(Mixes::edited($mix, ['edit' => 'remove-clips', 'clips' => ['bed'], 'close' => true])));
        self::assertSame([50, 70], $span(Mixes::edited($mix, ['edit' => 'trim-clip', 'clip' => 'bed', 'from' => 0, 'to' => 3 * self::S, 'ripple' => true])));
        self::assertSame([50, 70], $span(Mixes::edited($mix, ['edit' => 'trim-clip', 'clip' => 'bed', 'from' => self::S, 'to' => 4 * self::S, 'ripple' => true])));
        self::assertSame([70, 90], $span(Mixes::edited($mix, ['edit' => 'move-clips', 'clips' => ['bed-n2'], 'later' => self::S, 'ripple' => true])));
        self::assertSame([60, 80], $span(Mixes::edited($mix, ['edit' => 'move-clips', 'clips' => ['bed-n2'], 'later' => self::S])), 'without ripple, time does not move');
    }

    public function testATrimWithRippleKeepsTheCrossfadeThatFollows(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 4 * self::S]]]);
        $mix = Mixes::edited($mix, ['edit' => 'cross-over', 'earlier' => 'bed', 'later' => 'bed-n2', 'length' => self::S]);
        $overlap = static fn (Mix $m): int => $m->clip('bed')->end() - $m->clip('bed-n2')->at;
        $after = Mixes::edited($mix, ['edit' => 'trim-clip', 'clip' => 'bed', 'from' => 0, 'to' => $mix->clip('bed')->end() - self::S, 'ripple' => true]);
        self::assertGreaterThan(0, $overlap($mix));
        self::assertSame($overlap($mix), $overlap($after));
    }

    /** A mix that has one of everything at 9 to 10 s. */
    private static function full(): Mix
    {
        $mix = Mixes::voiceOverBed()->withSource(new Source('film', 'Film', 20 * self::S, 2, \Wattage\Core\Level\Decibels::unchanged(), null, true));
        $mix = $mix->withPicture(new Picture('p', 'film', 3 * self::S, 0, 8 * self::S));
        $mix = Mixes::edited($mix, ['edit' => 'duck', 'rule' => ['id' => 'r', 'name' => 'R', 'triggers' => [], 'targets' => ['music'], 'added' => [['from' => 9 * self::S, 'to' => 10 * self::S]]], 'lanes' => []]);
        $mix = Mixes::edited($mix, ['edit' => 'set-range', 'track' => 'music', 'lane' => 'level', 'from' => 6 * self::S, 'to' => 8 * self::S, 'level' => -9, 'ramp' => 0]);
        $span = Span::of(9 * self::S, 10 * self::S);

        return $mix->withCaptions([new Cue($span, 'A line')])->withMarker(new Marker('m', 9 * self::S, 'Mark'))
            ->withAim($mix->aim->with(accepted: [new Accepted($span, 'wanted')]))
            ->withTrack($mix->track('music')->withDucking(new Ducking(Curve::flat(), [$span])));
    }

    /** @return array{int, int} */
    private static function pair(Span $span): array
    {
        return [$span->from, $span->to];
    }

    /**
     * @param list<Cue|Accepted> $things
     *
     * @return list<array{int, int}>
     */
    private static function pairs(array $things): array
    {
        return array_map(static fn (Cue|Accepted $thing): array => self::pair($thing->span), $things);
    }

    private static function lanes(Random $random): Lanes
    {
        $times = static function (int $most) use ($random): array {
            $times = [];
            for ($n = $random->int(0, $most); $n > 0; --$n) {
                $times[$random->int(0, 120_000)] = true;
            }
            ksort($times);

            return array_keys($times);
        };

        return new Lanes(
            $random->curve(120_000, true),
            new PanLane(array_map(static fn (int $at): array => [$at, $random->float(-1, 1)], $times(6))),
            new MuteLane(array_map(static fn (int $at): array => [$at, 1 === $random->int(0, 1)], $times(6))),
        );
    }
}
