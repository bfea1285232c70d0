<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Captions;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Captions\CaptionFile;
use Wattage\Core\Captions\CaptionWriter;
use Wattage\Core\Captions\Cue;
use Wattage\Core\Time\Span;

final class CaptionWriterTest extends TestCase
{
    public function testWhatIsWrittenIsReadAgain(): void
    {
        $cues = [new Cue(Span::of(48_000, 96_000), 'Cast off'), new Cue(Span::of(100_800, 48_000 * 3700), 'Two < three & four')];
        self::assertEquals($cues, CaptionFile::read(CaptionWriter::vtt($cues, Span::of(0, 48_000 * 4000), 48_000), 48_000)->cues);
    }

    public function testOfARangeOnlyWhatIsInItFromItsBeginningOn(): void
    {
        $cues = [new Cue(Span::of(0, 48_000), 'before'), new Cue(Span::of(72_000, 120_000), 'half of it'), new Cue(Span::of(480_000, 500_000), 'after')];
        self::assertSame("WEBVTT\n\n00:00:00.000 --> 00:00:00.500\nhalf of it\n", CaptionWriter::vtt($cues, Span::of(96_000, 240_000), 48_000));
        self::assertSame("WEBVTT\n", CaptionWriter::vtt([], Span::of(0, 10), 48_000));
    }
}
