<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use RuntimeException;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Media\MeasuredFile;
use Wattage\App\Media\Measuring;
use Wattage\App\Media\Spool;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Tests\support\Sound;

/** Sound that two processes measure, each its half, is measured as one would. */
final class MeasuredFileTest extends TestCase
{
    private Spool $spool;
    private string $work;

    protected function setUp(): void
    {
        $this->spool = new Spool(sys_get_temp_dir().'/wattage-measured-'.getmypid());
        $this->work = $this->spool->workDirectory(Uuid::v7());
    }

    protected function tearDown(): void
    {
        $this->spool->remove(\dirname($this->work));
    }

    #[DataProvider('sounds')]
    public function testTwoProcessesFindWhatOneFinds(int $channels, int $bits, float $seconds, bool $dies): void
    {
        $format = PcmFormat::of($channels, $bits);
        $frames = (int) (48_000 * $seconds);
        $sound = self::sound($format, $frames);
        // Some bytes of a frame that was cut off.
        file_put_contents("{$this->work}/pcm", $sound."\1");
        $told = [];
        $totals = (new MeasuredFile($this->spool, $this->work, $format, 44_100, 'noise'))->measure(static function (float $done) use (&$told, $dies): void {
            $dies && [] === $told && array_map(static fn (int $child): bool => posix_kill($child, \SIGKILL), self::children());
            $told[] = $done;
        });
        $alone = $this->spool->within($this->work, 'alone');
        $measuring = Measuring::into($this->spool, $alone, $format, 44_100, 'noise');
        foreach (str_split($sound, 99_999) as $piece) {
            $measuring->push($piece);
        }
        self::assertEquals($measuring->finish(), $totals);
        self::assertSame($frames, $totals->frames);
        foreach (array_keys(Measuring::bytesPerSecond($channels)) as $part) {
            [$one, $two] = [(string) file_get_contents("{$alone}/{$part}"), (string) file_get_contents("{$this->work}/{$part}")];
            self::assertSame($frames > 0, '' !== $one);
            if ('blocks' !== $part) {
                self::assertSame(md5($one), md5($two), $part);
                continue;
            }
            // Filters that began a second earlier have settled to the last bit but one of a float.
            self::assertSame(\strlen($one), \strlen($two));
            foreach (array_map(null, Sound::floats($one), Sound::floats($two)) as [$a, $b]) {
                self::assertEqualsWithDelta($a, $b, 3e-7 * abs((float) $a));
            }
        }
        self::assertNotEmpty($told);
        self::assertSame(-1, pcntl_waitpid(-1, $status, \WNOHANG), 'no child is left');
    }

    /** @return iterable<string, array{int, int, float, bool}> */
    public static function sounds(): iterable
    {
        yield 'stereo, 16 bit' => [2, 16, 61.0, false];
        yield 'mono, 24 bit, ending anywhere' => [1, 24, 41.2345, false];
        yield 'stereo, 24 bit, the other process dies' => [2, 24, 43.21, true];
        yield 'too short for two' => [2, 16, 7.77, false];
        yield 'nothing' => [1, 16, 0.0, false];
    }

    public function testNoProcessIsLeftWhenItIsBrokenOff(): void
    {
        $format = PcmFormat::of(1, 16);
        file_put_contents("{$this->work}/pcm", self::sound($format, 60 * 48_000));
        try {
            (new MeasuredFile($this->spool, $this->work, $format, 48_000, 'noise'))->measure(static fn (): never => throw new RuntimeException('cancelled'));
            self::fail('It went on.');
        } catch (RuntimeException $cancelled) {
            self::assertSame('cancelled', $cancelled->getMessage());
        }
        self::assertSame(-1, pcntl_waitpid(-1, $status, \WNOHANG), 'no child is left');
    }

    /** Noise with a pause. */
    private static function sound(PcmFormat $format, int $frames): string
    {
        $bytes = Sound::noise(3, max(1, intdiv($frames, 3)) * $format->bytesPerFrame());

        return substr($bytes.str_repeat("\0", \strlen($bytes)).$bytes.$bytes, 0, $frames * $format->bytesPerFrame());
    }

    /** @return list<int> processes that this one has begun */
    private static function children(): array
    {
        $children = [];
        foreach (glob('/proc/[0-9]*/stat') ?: [] as $stat) {
            $fields = explode(' ', (string) preg_replace('/^.*\) /', '', (string) @file_get_contents($stat)));
            (int) ($fields[1] ?? 0) === getmypid() && $children[] = (int) basename(\dirname($stat));
        }

        return $children;
    }
}
