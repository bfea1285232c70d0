<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\SourceAdvice;
use Wattage\Core\Timeline\Stem;
use Wattage\Tests\support\Mixes;

/** Speech to about −20 dBFS on average and background to about −30 while preparing sources: common practice, no published source. */
final class SourceAdviceTest extends TestCase
{
    /** @param array{Stem, float, ?string} $expected use, gain, limit */
    #[DataProvider('sources')]
    public function testTheGainFollowsFromWhatASourceIsUsedFor(string $source, float $average, float $peak, array $expected): void
    {
        $advice = SourceAdvice::of(Mixes::voiceOverBed(), $source, $average, $peak);
        self::assertNotNull($advice);
        self::assertSame($expected, [$advice->use, $advice->gain, $advice->limit]);
    }

    /** @return iterable<string, array{string, float, float, array{Stem, float, ?string}}> */
    public static function sources(): iterable
    {
        yield 'quiet speech' => ['src-voice', -31.0, -15.0, [Stem::Speech, 11.0, null]];
        yield 'loud speech' => ['src-voice', -12.0, -0.5, [Stem::Speech, -8.0, null]];
        yield 'a bed' => ['src-bed', -18.0, -3.0, [Stem::Music, -12.0, null]];
        yield 'speech with a high peak' => ['src-voice', -31.0, -6.0, [Stem::Speech, 5.0, 'peak']];
        yield 'a whisper' => ['src-voice', -60.0, -45.0, [Stem::Speech, 24.0, 'gain']];
        yield 'over full scale' => ['src-bed', -30.0, 2.0, [Stem::Music, -3.0, 'peak']];
    }

    public function testThereIsNoneForWhatIsSilentOrNotUsed(): void
    {
        self::assertNull(SourceAdvice::of(Mixes::voiceOverBed(), 'src-voice', null, -200.0));
        self::assertNull(SourceAdvice::of(Mixes::voiceOverBed(), 'elsewhere', -20.0, -3.0));
    }
}
