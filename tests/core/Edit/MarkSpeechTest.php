<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Edit;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\SpokenMarks;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Talk;

/** What is taken for speech, put right by hand. */
final class MarkSpeechTest extends TestCase
{
    private const S = Talk::RATE;

    public function testAMarkHoldsForTheRecordingWhereverItIsMovedAndAgainstWhatIsHeard(): void
    {
        $mix = self::marked(Talk::open()->mix, 7.0, 8.0, 'speech');
        $mix = self::marked($mix, 4.5, 6.2, 'other');
        $marks = $mix->source('src-voice')->marks;
        self::assertEquals([Span::of(7 * self::S, 8 * self::S)], $marks->speech);
        $found = (Talk::open()->activity())('src-voice', 10.0);
        $right = $marks->applied($found);
        self::assertSame([true, false, true], array_map(static fn (float $at): bool => self::speaks($right, $at), [7.5, 5.0, 3.0]));
        // Moved and split, it is the same words; undone, it is as it was heard.
        $moved = Mixes::edited(Mixes::edited($mix, ['edit' => 'move-clip', 'clip' => 'voice', 'track' => 'speech', 'at' => 3 * self::S]), ['edit' => 'split', 'cuts' => [['clip' => 'voice', 'at' => 10 * self::S]]]);
        self::assertEquals($marks, $moved->source('src-voice')->marks);
        $heard = self::marked($moved, 0.0, 30.0, 'found');
        self::assertTrue($heard->source('src-voice')->marks->isEmpty());
        self::assertEquals($mix, MixDocument::decode(MixDocument::encode($mix)));
        self::assertSame($found, $heard->source('src-voice')->marks->applied($found));
    }

    /** The newer word counts, also in the middle of an older one. */
    public function testMarksOverOneAnother(): void
    {
        $marks = (new SpokenMarks())->marked(Span::of(100, 500), true)->marked(Span::of(200, 300), false)->marked(Span::of(250, 260), null);
        self::assertEquals([Span::of(100, 200), Span::of(300, 500)], $marks->speech);
        self::assertEquals([Span::of(200, 250), Span::of(260, 300)], $marks->other);
        self::assertEquals([Span::of(0, 200), Span::of(250, 260), Span::of(300, 500)], $marks->applied([Span::of(0, 280)]));
    }

    public function testWhereNothingSoundsThereIsNothingToMark(): void
    {
        $this->expectException(InvalidEdit::class);
        $this->expectExceptionMessage('Select a range over a clip');
        self::marked(Talk::open()->mix, 40.0, 50.0, 'speech');
    }

    private static function marked(Mix $mix, float $from, float $to, string $as): Mix
    {
        return Mixes::edited($mix, ['edit' => 'mark-speech', 'tracks' => ['speech'], 'from' => (int) ($from * self::S), 'to' => (int) ($to * self::S), 'as' => $as]);
    }

    /** @param list<Span> $spans */
    private static function speaks(array $spans, float $at): bool
    {
        return [] !== array_filter($spans, static fn (Span $span): bool => $span->from <= $at * self::S && $span->to > $at * self::S);
    }
}
