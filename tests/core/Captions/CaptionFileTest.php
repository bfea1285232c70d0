<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Captions;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestDox;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Captions\CaptionFile;
use Wattage\Core\Captions\Cue;
use Wattage\Core\Captions\InvalidCaptions;

final class CaptionFileTest extends TestCase
{
    /** @param list<array{float, float, string}> $expected */
    #[DataProvider('files')]
    #[TestDox('$_dataName')]
    public function testCuesAreRead(string $text, array $expected, int $leftOut = 0): void
    {
        $file = CaptionFile::read($text, 48_000);
        self::assertEquals($expected, array_map(static fn (Cue $c): array => [$c->span->from / 48_000, $c->span->to / 48_000, $c->text], $file->cues));
        self::assertCount($leftOut, $file->leftOut);
    }

    /**
     * Syntax as the W3C's WebVTT defines it: header text, notes, styles, regions, cue names, settings, tags, entities, hours left out.
     *
     * @return iterable<string, array{string, list<array{float, float, string}>}>
     */
    public static function files(): iterable
    {
        yield 'WebVTT, the least' => ["WEBVTT\n\n00:11.000 --> 00:13.000\nWe are at the slip.\n", [[11.0, 13.0, 'We are at the slip.']]];
        yield 'WebVTT, with all there is' => [
            "\u{FEFF}WEBVTT - Ferry\nKind: captions\n\nSTYLE\n::cue { color: lime }\n\nREGION\nid:bill\n\nNOTE\na note\nof two lines\n\nfirst\n00:00:01.500 --> 00:00:02.250 align:start position:10%\n<v Deckhand>The tide &amp; the <i>salt</i>\ndo not wait.</v>\n\n01:00:00.000 --> 01:00:01.000\n- One\n- Two\n",
            [[1.5, 2.25, 'The tide & the salt do not wait.'], [3600.0, 3601.0, '- One - Two']],
        ];
        yield 'SubRip' => ["1\r\n00:00:01,000 --> 00:00:02,000\r\n{\\an8}<b>Hold on</b>\r\n\r\n2\r\n00:00:02,500 --> 00:00:04,000\r\nto the rail.\r\n", [[1.0, 2.0, 'Hold on'], [2.5, 4.0, 'to the rail.']]];
        yield 'overlapping, and not in order' => ["WEBVTT\n\n00:05.000 --> 00:09.000\nB\n\n00:01.000 --> 00:06.000\nA\n", [[1.0, 6.0, 'A'], [5.0, 9.0, 'B']]];
        yield 'broken cues are left out' => ["WEBVTT\n\n00:05.000 --> 00:04.000\nBackwards\n\n00:99.000 --> 01:10.000\nNo such time\n\nx\ny\n\n00:01.000 --> 00:02.000\nFine\n", [[1.0, 2.0, 'Fine']], 3];
        yield 'empty cues say nothing' => ["WEBVTT\n\n00:01.000 --> 00:02.000\n\n00:03.000 --> 00:04.000\nWords\n", [[3.0, 4.0, 'Words']]];
    }

    #[DataProvider('unusable')]
    public function testWhatHoldsNoCaptionsIsRefusedInWords(string $text, string $says): void
    {
        $this->expectException(InvalidCaptions::class);
        $this->expectExceptionMessage($says);
        CaptionFile::read($text, 48_000);
    }

    /** @return iterable<string, array{string, string}> */
    public static function unusable(): iterable
    {
        yield 'nothing' => ['', 'it is empty'];
        yield 'a header alone' => ["WEBVTT\n", 'it is empty'];
        yield 'something else' => ["<html>\n<body>\n", 'line 2: no times like'];
        yield 'only broken times' => ["1\n00:00:02,000 --> 00:00:01,000\nBack\n", 'line 2: it ends before it begins'];
        yield 'too large' => [str_repeat('x', CaptionFile::MAX_BYTES + 1), 'up to 1000 kB'];
        yield 'not UTF-8' => ["WEBVTT\n\n00:01.000 --> 00:02.000\n\xC3\x28\n", 'UTF-8'];
    }
}
