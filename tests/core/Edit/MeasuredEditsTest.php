<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Edit;

use Closure;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestDox;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Aim;
use Wattage\Core\Timeline\InvalidMix;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Zone;
use Wattage\Tests\support\Mixes;

/** The edits that measuring leads to: aims, captions, what was accepted, and levels worked out by the core. */
final class MeasuredEditsTest extends TestCase
{
    private const S = Mixes::SECOND;

    /**
     * @param array<string, mixed> $edit
     * @param Closure(Mix): mixed $seen
     */
    #[DataProvider('edits')]
    #[TestDox('$_dataName')]
    public function testTheyDoWhatTheySay(array $edit, string $label, Closure $seen, mixed $expected): void
    {
        $before = Mixes::voiceOverBed();
        $made = (new EditReader($before, Mixes::sources()))->read($edit);
        $after = Change::by($made, $before);
        self::assertSame($label, $made->label($before));
        self::assertEquals($expected, $seen($after));
        self::assertEquals($after, MixDocument::decode(MixDocument::encode($after)), 'it is stored whole');
        self::assertEquals(Mixes::voiceOverBed(), $before, 'undo leads back to just this');
        self::assertSame($after, Change::by((new EditReader($after, Mixes::sources()))->read($edit), $after), 'made again it changes nothing');
    }

    /** @return iterable<string, array{array<string, mixed>, string, Closure(Mix): mixed, mixed}> */
    public static function edits(): iterable
    {
        $s = self::S;
        yield 'set-aim, one' => [['edit' => 'set-aim', 'clearance' => 20], 'Aim for 20 LU of clearance', static fn (Mix $m): float => $m->aim->clearance, 20.0];
        yield 'set-aim, all' => [
            ['edit' => 'set-aim', 'clearance' => 10, 'sensitivity' => 7.5, 'loudness' => -16, 'truePeak' => -1.5],
            'Aim for 10 LU of clearance, speech at a sensitivity of 7.5 dB, −16 LUFS, −1.5 dBTP at most',
            static fn (Mix $m): Aim => $m->aim,
            new Aim(10.0, 7.5, -16.0, -1.5),
        ];
        yield 'set-zone' => [['edit' => 'set-zone', 'stem' => 'music', 'low' => -40, 'high' => -24.5], 'Set the zone of music', static fn (Mix $m): Zone => $m->aim->zone(Stem::Music), new Zone(-40.0, -24.5)];
        yield 'set-zone, as soft as it likes' => [['edit' => 'set-zone', 'stem' => 'speech', 'high' => -18], 'Set the zone of speech', static fn (Mix $m): Zone => $m->aim->zone(Stem::Speech), new Zone(null, -18.0)];
        yield 'set-zone, the usual' => [['edit' => 'set-zone', 'stem' => 'effects'], 'Set the zone of effects', static fn (Mix $m): array => $m->aim->zones, []];
        yield 'accept-buried' => [
            ['edit' => 'accept-buried', 'from' => $s, 'to' => 2 * $s, 'note' => ' The horn wins. '],
            'Accept buried speech, 0:01.000–0:02.000',
            static fn (Mix $m): array => array_map(static fn ($a): array => [$a->span->from, $a->span->to, $a->note], $m->aim->accepted),
            [[$s, 2 * $s, 'The horn wins.']],
        ];
        yield 'accept-buried, without a word' => [
            ['edit' => 'accept-buried', 'from' => $s, 'to' => 2 * $s, 'note' => ''],
            'Accept buried speech, 0:01.000–0:02.000',
            static fn (Mix $m): string => $m->aim->accepted[0]->note,
            '',
        ];
        yield 'set-captions' => [
            ['edit' => 'set-captions', 'text' => "WEBVTT\n\n00:01.000 --> 00:02.000\nHold on.\n"],
            'Take 1 caption',
            static fn (Mix $m): array => array_map(static fn ($c): array => [$c->span->from, $c->span->to, $c->text], $m->captions),
            [[$s, 2 * $s, 'Hold on.']],
        ];
        yield 'set-clip-gains' => [
            ['edit' => 'set-clip-gains', 'gains' => [['clip' => 'voice', 'gain' => -2.5], ['clip' => 'bed', 'gain' => '50%']]],
            'Even up 2 clips',
            static fn (Mix $m): array => [$m->clip('voice')->gain->db, round($m->clip('bed')->gain->db, 2)],
            [-2.5, -6.02],
        ];
        yield 'set-curves' => [
            ['edit' => 'set-curves', 'curves' => [['clip' => 'bed', 'curve' => [['at' => 0, 'level' => -1, 'ramp' => 'line'], ['at' => 2 * $s, 'level' => -5, 'ramp' => 'line']]]]],
            'Steady Slow accordion',
            static fn (Mix $m): array => [$m->clip('bed')->levelAt($s)->db, $m->clip('bed')->levelAt(9 * $s)->db],
            [-3.0, -5.0],
        ];
    }

    public function testSeveralDipsAreOneStep(): void
    {
        $s = self::S;
        $dip = static fn (int $from, float $by): array => ['clips' => ['bed'], 'from' => $from, 'to' => $from + $s, 'by' => $by, 'ramp' => 4800];
        $before = Mixes::voiceOverBed();
        $made = (new EditReader($before))->read(['edit' => 'dips', 'dips' => [$dip($s, -6.0), $dip(6 * $s, -9.0)]]);
        $after = Change::by($made, $before);
        self::assertSame('Change 2 ranges', $made->label($before));
        self::assertSame([-6.0, 0.0, -9.0], array_map(static fn (float $t): float => round($after->clip('bed')->levelAt((int) ($t * $s))->db, 2), [1.5, 4.0, 6.5]));
        $one = (new EditReader($before))->read(['edit' => 'dips', 'dips' => [$dip($s, -6.0)]]);
        self::assertSame('Dip Slow accordion by 6 dB, 0:01.000–0:02.000', $one->label($before));
    }

    public function testWhatWasAcceptedCanBeLookedAtAgain(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'accept-buried', 'from' => 0, 'to' => 1000, 'note' => 'a']);
        $mix = Mixes::edited($mix, ['edit' => 'accept-buried', 'from' => 5000, 'to' => 6000, 'note' => 'b']);
        $mix = Mixes::edited($mix, ['edit' => 'accept-buried', 'from' => 500, 'to' => 2000, 'note' => 'c']);
        self::assertSame(['c', 'b'], array_column($mix->aim->accepted, 'note'), 'a new word on the same stretch takes the place of the old');
        $again = (new EditReader($mix))->read(['edit' => 'accept-buried', 'from' => 1000, 'to' => 1500]);
        self::assertSame('Look again at buried speech, 0:00.020–0:00.031', $again->label($mix));
        self::assertSame(['b'], array_column(Change::by($again, $mix)->aim->accepted, 'note'));
    }

    public function testCaptionsAreRemovedByNone(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-captions', 'text' => "1\n00:00:01,000 --> 00:00:02,000\nA\n\n2\n00:00:04,000 --> 00:00:03,000\nB\n"]);
        self::assertCount(1, $mix->captions);
        $remove = (new EditReader($mix))->read(['edit' => 'set-captions', 'text' => '']);
        self::assertSame('Remove the captions', $remove->label($mix));
        self::assertSame([], Change::by($remove, $mix)->captions);
    }

    public function testALockedTrackIsLetAlone(): void
    {
        $locked = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-locked', 'track' => 'music', 'locked' => true]);
        foreach ([
            ['edit' => 'set-clip-gains', 'gains' => [['clip' => 'bed', 'gain' => -3]]],
            ['edit' => 'set-curves', 'curves' => [['clip' => 'bed', 'curve' => [['at' => 0, 'level' => -3]]]]],
            ['edit' => 'dips', 'dips' => [['clips' => ['bed'], 'from' => 0, 'to' => self::S, 'by' => -3, 'ramp' => 0]]],
        ] as $edit) {
            try {
                Mixes::edited($locked, $edit);
                self::fail('A locked track was changed.');
            } catch (Problem $problem) {
                self::assertStringContainsString('locked', $problem->getMessage());
            }
        }
    }

    /** @param array<string, mixed> $edit */
    #[DataProvider('mistakes')]
    #[TestDox('refused: $_dataName')]
    public function testMistakesAreToldByField(array $edit, string $field): void
    {
        $mix = Mixes::voiceOverBed();
        try {
            Mixes::edited($mix, $edit);
        } catch (Problem $problem) {
            self::assertSame($field, $problem->field());
            self::assertNotSame('', $problem->getMessage());
            self::assertEquals(Mixes::voiceOverBed(), $mix);

            return;
        }
        self::fail('It was taken.');
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function mistakes(): iterable
    {
        yield 'an aim of nothing' => [['edit' => 'set-aim'], 'edit'];
        yield 'a clearance too small' => [['edit' => 'set-aim', 'clearance' => 1], 'clearance'];
        yield 'a clearance nobody can reach' => [['edit' => 'set-aim', 'clearance' => 41], 'clearance'];
        yield 'a sensitivity of nothing' => [['edit' => 'set-aim', 'sensitivity' => 0], 'sensitivity'];
        yield 'a target above full scale' => [['edit' => 'set-aim', 'loudness' => 1], 'loudness'];
        yield 'a clearance in words' => [['edit' => 'set-aim', 'clearance' => 'much'], 'clearance'];
        yield 'an accepted stretch that is empty' => [['edit' => 'accept-buried', 'from' => 10, 'to' => 10, 'note' => ''], 'to'];
        yield 'captions that are none' => [['edit' => 'set-captions', 'text' => 'Once upon a time'], 'text'];
        yield 'captions of no text' => [['edit' => 'set-captions'], 'text'];
        yield 'a zone upside down' => [['edit' => 'set-zone', 'stem' => 'speech', 'low' => -10, 'high' => -20], 'high'];
        yield 'a zone of no stem' => [['edit' => 'set-zone', 'stem' => 'wind', 'high' => -20], 'stem'];
        yield 'a zone above full scale' => [['edit' => 'set-zone', 'stem' => 'music', 'high' => 2], 'high'];
        yield 'no gains' => [['edit' => 'set-clip-gains', 'gains' => []], 'gains'];
        yield 'a gain too high' => [['edit' => 'set-clip-gains', 'gains' => [['clip' => 'bed', 'gain' => 25]]], 'gains[0].gain'];
        yield 'the gain of a clip that is gone' => [['edit' => 'set-clip-gains', 'gains' => [['clip' => 'gone', 'gain' => 0]]], 'clip'];
        yield 'no curves' => [['edit' => 'set-curves', 'curves' => []], 'curves'];
        yield 'a curve that goes back' => [['edit' => 'set-curves', 'curves' => [['clip' => 'bed', 'curve' => [['at' => 5, 'level' => 0], ['at' => 5, 'level' => 1]]]]], 'curve'];
        yield 'no dips' => [['edit' => 'dips', 'dips' => []], 'dips'];
        yield 'a dip over no clip' => [['edit' => 'dips', 'dips' => [['clips' => ['bed'], 'from' => 50 * self::S, 'to' => 51 * self::S, 'by' => -3, 'ramp' => 0]]], 'from'];
    }

    public function testThereIsAnEndToWhatCanBeAccepted(): void
    {
        $this->expectException(InvalidMix::class);
        new Aim(accepted: array_fill(0, Aim::MAX_ACCEPTED + 1, new \Wattage\Core\Timeline\Accepted(\Wattage\Core\Time\Span::of(0, 1), '')));
    }
}
