<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Speech;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Signal\PcmDecoder;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Speech\Activity;
use Wattage\Core\Timeline\Aim;
use Wattage\Tests\support\ActiveLevel;
use Wattage\Tests\support\Demo;

/** Where speech is found, compared with ITU-T P.56 method B: the level of what is taken as speech is that of active speech. */
final class ActiveLevelTest extends TestCase
{
    #[DataProvider('talks')]
    public function testTheLevelOfWhatIsTakenAsSpeechIsTheActiveSpeechLevel(string $source): void
    {
        $demo = Demo::open();
        $rate = $demo->mix->rate;
        $length = min($demo->mix->source($source)->length, 25 * $rate);
        $samples = array_map(static fn (int $x): float => $x / 32_768, PcmDecoder::decode($demo->sounds[$source]->read(0, $length), PcmFormat::of(1, 16)));
        [$level, $part] = ActiveLevel::of($samples, $rate);
        $sum = $count = 0;
        foreach (Activity::of($demo->blocks[$source], $rate, Aim::USUAL_SENSITIVITY) as $span) {
            for ($i = $span->from, $end = min($span->to, $length); $i < $end; ++$i) {
                $sum += $samples[$i] ** 2;
                ++$count;
            }
        }
        self::assertEqualsWithDelta($level, 10 * log10($sum / $count), 1.0);
        self::assertEqualsWithDelta($part, $count / $length, 0.15, 'and so is the part of the time');
    }

    /** @return iterable<string, array{string}> */
    public static function talks(): iterable
    {
        yield 'close and dry' => ['narrator'];
        yield 'with the engine behind it' => ['wheelhouse'];
        yield 'far from the microphone' => ['deck'];
    }

    /** A steady tone is active all the time at its own level; one that sounds half of the time reads no lower. */
    public function testTheReferenceItselfReadsKnownLevels(): void
    {
        $tone = static fn (int $i): float => 0.1 * sin(2 * \M_PI * 500 * $i / 16_000);
        $steady = array_map($tone, range(0, 160_000));
        self::assertEqualsWithDelta(-23.01, ActiveLevel::of($steady, 16_000)[0], 0.1);
        $halved = array_map(static fn (int $i): float => $i % 64_000 < 32_000 ? $tone($i) : 0.0, range(0, 320_000));
        [$level, $part] = ActiveLevel::of($halved, 16_000);
        self::assertEqualsWithDelta(-23.4, $level, 0.4, 'its hang-over counts too');
        self::assertEqualsWithDelta(0.55, $part, 0.06);
    }
}
