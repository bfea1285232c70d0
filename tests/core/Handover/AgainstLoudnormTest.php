<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Handover;

use Closure;
use PHPUnit\Framework\TestCase;
use RuntimeException;
use Wattage\Core\Handover\Target;
use Wattage\Core\Handover\ToTarget;
use Wattage\Core\Loudness\SampleMeter;
use Wattage\Tests\support\Sound;

/**
 * Beside what people would use instead: ffmpeg's loudnorm in two passes. Ten mixes are brought to a target by both; ffmpeg's ebur128 measures
 * what came out of either.
 */
final class AgainstLoudnormTest extends TestCase
{
    private const LOUDNESS = -16.0;
    private const TRUE_PEAK = -1.5;

    public function testOursIsNearerToTheTargetNoPeakPassesAndTheRangeIsChangedLess(): void
    {
        $ours = $theirs = ['off' => [], 'range' => [], 'over' => []];
        foreach (self::mixes() as $filter) {
            $in = Sound::file('', '.f32');
            Sound::run(['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', $filter, '-ac', '2', '-ar', '48000', '-f', 'f32le', $in]);
            $before = self::measured($in);
            foreach ([[&$ours, self::byUs($in)], [&$theirs, self::byLoudnorm($in)]] as [&$of, $out]) {
                $after = self::measured($out);
                $of['off'][] = abs($after['I'] - self::LOUDNESS);
                $of['range'][] = abs($after['LRA'] - $before['LRA']);
                $of['over'][] = $after['Peak'] - self::TRUE_PEAK;
            }
            unset($of);
        }
        self::assertLessThanOrEqual(0.1, max([0.0, ...$ours['off']]));
        self::assertLessThanOrEqual(array_sum($theirs['off']), array_sum($ours['off']));
        // ffmpeg's oversampling is another one, within 0.2 dB.
        self::assertLessThanOrEqual(0.2, max([-\INF, ...$ours['over']]));
        self::assertLessThanOrEqual(array_sum($theirs['range']), array_sum($ours['range']));
    }

    /** @return list<string> quiet and loud, even and not, with single peaks and with none */
    private static function mixes(): array
    {
        $noise = static fn (string $colour, float $amplitude, int $seed): string => "anoisesrc=d=16:c={$colour}:r=48000:a={$amplitude}:seed={$seed}";

        return [
            $noise('pink', 0.05, 1),
            $noise('brown', 0.5, 2).',tremolo=f=0.2:d=0.9',
            $noise('white', 0.3, 3),
            $noise('pink', 0.2, 4).',tremolo=f=3:d=0.95',
            'aevalsrc=0.05*sin(2*PI*220*t)+0.7*sin(2*PI*900*t)*lt(mod(t\,2)\,0.004):d=16:s=48000',
            'aevalsrc=0.2*sin(2*PI*110*t)*(0.1+abs(sin(t/3))):d=16:s=48000',
            'aevalsrc=0.6*sin(2*PI*440*t)*lt(mod(t\,4)\,2):d=16:s=48000',
            $noise('pink', 0.02, 5).',volume=0.3',
            $noise('blue', 0.2, 6).',tremolo=f=1:d=0.6',
            'aevalsrc=0.03*sin(2*PI*300*t)+0.4*sin(2*PI*200*t)*between(t\,8\,10):d=16:s=48000',
        ];
    }

    private static function byUs(string $in): string
    {
        $pieces = static function () use ($in): iterable {
            $file = fopen($in, 'r') ?: throw new RuntimeException($in);
            while ('' !== ($bytes = (string) stream_get_contents($file, 38_400))) {
                yield Sound::floats($bytes);
            }
        };
        $meter = new SampleMeter(2, 48_000);
        foreach ($pieces() as $piece) {
            $meter->push($piece);
        }
        $written = '';
        $begin = static function () use (&$written): Closure {
            $written = '';

            return static function (array $samples) use (&$written): void {
                $written .= pack('g*', ...$samples);
            };
        };
        foreach ((new ToTarget(Target::of(self::LOUDNESS, self::TRUE_PEAK), $meter->finish(), 2, 48_000))->write($pieces, $begin) as $_) {
        }

        return Sound::file($written, '.f32');
    }

    private static function byLoudnorm(string $in): string
    {
        $asked = \sprintf('loudnorm=I=%.1f:TP=%.1f:LRA=20', self::LOUDNESS, self::TRUE_PEAK);
        $input = ['-f', 'f32le', '-ar', '48000', '-ac', '2', '-i', $in];
        $said = Sound::run(['sh', '-c', 'exec "$@" 2>&1', '-', 'ffmpeg', '-nostats', '-hide_banner', ...$input, '-af', "{$asked}:print_format=json", '-f', 'null', '-']);
        /** @var array<string, string> $first */
        $first = json_decode(substr($said, (int) strrpos($said, '{'), (int) strrpos($said, '}') - (int) strrpos($said, '{') + 1), true);
        $out = Sound::file('', '.f32');
        $measured = "measured_I={$first['input_i']}:measured_TP={$first['input_tp']}:measured_LRA={$first['input_lra']}:measured_thresh={$first['input_thresh']}:offset={$first['target_offset']}:linear=true";
        Sound::run(['ffmpeg', '-v', 'error', '-y', ...$input, '-af', "{$asked}:{$measured}", '-ar', '48000', '-f', 'f32le', $out]);

        return $out;
    }

    /** @return array{I: float, LRA: float, Peak: float} as ffmpeg's ebur128 measures */
    private static function measured(string $file): array
    {
        $said = Sound::run(['sh', '-c', 'ffmpeg -nostats -hide_banner -f f32le -ar 48000 -ac 2 -i "$0" -af ebur128=peak=true -f null - 2>&1', $file]);
        $summary = substr($said, (int) strrpos($said, 'Summary'));
        $read = static fn (string $name): float => 1 === preg_match("/{$name}:\\s+(-?[\\d.]+)/", $summary, $found) ? (float) $found[1] : \NAN;

        return ['I' => $read('I'), 'LRA' => $read('LRA'), 'Peak' => $read('Peak')];
    }
}
