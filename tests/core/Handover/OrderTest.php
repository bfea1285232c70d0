<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Handover;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Handover\InvalidOrder;
use Wattage\Core\Handover\NamePattern;
use Wattage\Core\Handover\Tags;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\OrderDocument;
use Wattage\Core\Problem;

final class OrderTest extends TestCase
{
    /** @param array<string, mixed> $document */
    #[DataProvider('orders')]
    public function testWhatIsReadIsWrittenAgain(array $document): void
    {
        $written = OrderDocument::toArray(OrderDocument::read(Fields::of($document)));
        self::assertSame([], array_diff_key($document, $written));
        self::assertEquals($written, OrderDocument::toArray(OrderDocument::read(Fields::of($written))));
        foreach ($document as $name => $value) {
            self::assertEquals($value, $written[$name]);
        }
    }

    /** @return iterable<string, array{array<string, mixed>}> */
    public static function orders(): iterable
    {
        yield 'the programme for a broadcaster' => [['format' => 'wav', 'bits' => 24, 'target' => ['loudness' => -23.0, 'truePeak' => -1.0]]];
        yield 'a podcast' => [['format' => 'mp3', 'kbps' => 128, 'rate' => 44_100, 'channels' => 1, 'target' => ['loudness' => -19.0, 'truePeak' => -1.0]]];
        yield 'a stem, to the level of the programme' => [['format' => 'flac', 'bits' => 24, 'part' => 'stem', 'stem' => 'music', 'asProgramme' => true]];
        yield 'all but speech, a range' => [['format' => 'opus', 'part' => 'without', 'stem' => 'speech', 'range' => ['from' => 4800, 'to' => 96_000]]];
        yield 'a track as it is' => [['format' => 'wav', 'bits' => 32, 'part' => 'track', 'track' => 't1', 'target' => ['loudness' => null, 'truePeak' => null]]];
    }

    /** @param array<string, mixed> $document */
    #[DataProvider('wrong')]
    public function testWhatIsWrongIsNamed(array $document, string $said): void
    {
        $this->expectException(Problem::class);
        $this->expectExceptionMessage($said);
        OrderDocument::read(Fields::of($document));
    }

    /** @return iterable<array{array<string, mixed>, string}> */
    public static function wrong(): iterable
    {
        yield [['format' => 'aiff'], 'wav, flac, mp3, aac, opus'];
        yield [['format' => 'wav', 'bits' => 20], 'WAV file has 16 or 24 or 32 bits'];
        yield [['format' => 'flac', 'bits' => 32], 'FLAC file has 16 or 24 bits'];
        yield [['format' => 'opus', 'rate' => 44_100], '48,000'];
        yield [['format' => 'mp3', 'kbps' => 5000], 'kbps'];
        yield [['format' => 'wav', 'channels' => 6], 'channels'];
        yield [['format' => 'wav', 'part' => 'stem'], 'stem'];
        yield [['format' => 'wav', 'part' => 'stem', 'stem' => 'drums'], 'speech, music'];
        yield [['format' => 'wav', 'target' => ['loudness' => 3]], 'A loudness of 3 LUFS'];
        yield [['format' => 'wav', 'colour' => 'red'], 'colour'];
        yield [['format' => 'wav', 'range' => ['from' => 5, 'to' => 5]], 'A range must end after it starts'];
    }

    #[DataProvider('names')]
    public function testNamesByAPattern(string $pattern, string $expected): void
    {
        $words = ['project' => 'The Salt / Ferry', 'recipe' => 'To the host', 'part' => 'music', 'date' => '2026-11-28', 'revision' => '12', 'loudness' => '-16.0 LUFS'];
        self::assertSame($expected, (new NamePattern($pattern))->name($words));
    }

    /** @return iterable<array{string, string}> */
    public static function names(): iterable
    {
        yield [NamePattern::USUAL, 'The Salt - Ferry music r12'];
        yield ['{date} {recipe} {loudness}', '2026-11-28 To the host -16.0 LUFS'];
        yield ['../..\\{project}', 'The Salt - Ferry'];
        yield ['...', 'handover'];
        yield [str_repeat('x', 120), str_repeat('x', 120)];
        yield ["a\u{202E}b", 'a-b'];
    }

    #[DataProvider('badPatterns')]
    public function testPatternsThatKnowOtherWordsAreRefused(string $pattern): void
    {
        $this->expectException(InvalidOrder::class);
        new NamePattern($pattern);
    }

    /** @return iterable<array{string}> */
    public static function badPatterns(): iterable
    {
        yield from [['{colour}'], ['{project'], [''], ['  '], [str_repeat('x', 121)], ["a\0b"]];
    }

    public function testTagsLoseWhatCannotBeSeen(): void
    {
        $tags = new Tags("The\0 Salt\u{202E} Ferry\n", str_repeat('x', 10_000));
        self::assertSame('The  Salt  Ferry', $tags->title);
        self::assertSame(400, mb_strlen($tags->programme));
    }
}
