<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Closure;
use Generator;
use RuntimeException;
use Wattage\App\Entity\Source;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\Core\Bands\BandMeter;
use Wattage\Core\Loudness\AverageLevel;
use Wattage\Core\Loudness\Overview;
use Wattage\Core\Loudness\Predicted;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Signal\NotWritten;
use Wattage\Core\Speech\SpeechChance;
use Wattage\Core\Speech\SpeechLevels;
use Wattage\Core\Timeline\Side;

/** All that is derived from the sound of a source, worked out once, in streams, so that requests only read small parts of it. */
final readonly class SourceParts
{
    /** By bands, every 40 ms: speech is found from it, and then it is not kept. */
    public const RECORDS = 'records';

    private const RECORDS_AT_ONCE = 1 << 16;

    /** Of a minute, bytes: for less it is not worth a second process. */
    private const LONG_RECORDS = 60 * BandMeter::PER_SECOND * BandMeter::RECORD;

    private const DERIVED = ['blocks', 'waveform', 'bands', 'tenths', 'speech-levels', 'speech-chance'];

    public function __construct(private Spool $spool, private MediaStore $store)
    {
    }

    /**
     * From the blocks, the waveform, the bands and the records in a work directory to all the rest.
     *
     * @param Closure(): mixed $tick called now and then
     *
     * @return array{?float, array{integrated: ?float, range: float, maxShortTerm: ?float}} average level in dBFS, loudness
     *
     * @throws NoRoom
     */
    public function work(string $work, int $channels, Closure $tick): array
    {
        // Finding speech takes as long as all the rest, and goes by nothing of it.
        $chance = static fn (Closure $tick): string => SpeechChance::ofRecords(self::records($work, $tick))->bytes;
        $beside = filesize("{$work}/".self::RECORDS) < self::LONG_RECORDS ? null : Beside::begin($chance);
        try {
            $this->outlines($work, $channels);
            $tick();
            $tenths = SourceTenths::bytesOf(self::minutes($work, $channels, $tick), $channels);
            $this->keep($work, 'tenths', $tenths);
            $this->keep($work, 'speech-levels', SpeechLevels::ofMinutes(self::minutes($work, $channels, $tick))->toBytes());
            $told = $beside?->result($tick);
        } finally {
            $beside?->end();
        }
        $this->keep($work, 'speech-chance', $told ?? $chance($tick));
        $tick();

        return [AverageLevel::ofMinutes(self::minutes($work, $channels, $tick)), self::loudness(SourceTenths::fromBytes($tenths, $channels))];
    }

    /**
     * @param array<string, string> $known parts to store beside those worked out here, and their digests
     * @param Closure(): mixed $tick called now and then
     *
     * @throws NoRoom|Damaged
     */
    public function publish(Source $source, string $work, array $known, Closure $tick): void
    {
        $outlines = array_map(basename(...), glob("{$work}/overview-*") ?: []);
        foreach ([...array_keys($known), ...self::DERIVED, ...$outlines] as $part) {
            $digest = $known[$part] ?? (string) hash_file(MediaStore::DIGEST, "{$work}/{$part}");
            $this->store->put(MediaStore::pathOf($source, $part), "{$work}/{$part}", $digest, $tick);
        }
    }

    /**
     * One channel sounds on both sides.
     *
     * @return array{integrated: ?float, range: float, maxShortTerm: ?float}
     */
    private static function loudness(SourceTenths $tenths): array
    {
        $sides = 1 === $tenths->channels() ? [[$tenths->powers[0], 2.0]] : [[$tenths->powers[0], 1.0], [$tenths->powers[1], 1.0]];
        $found = Predicted::of(Series::sum($sides, \count($tenths->peaks)), 0.0);
        $round = static fn (?float $value): ?float => null === $value ? null : round($value, 1);

        return ['integrated' => $round($found->integrated), 'range' => round($found->range, 1), 'maxShortTerm' => $round($found->maxShortTerm)];
    }

    /** Of both channels together, and of each. */
    private function outlines(string $work, int $channels): void
    {
        $this->outline($work, $channels, '', null);
        if (2 === $channels) {
            $this->outline($work, 2, '-'.Side::Left->value, 0);
            $this->outline($work, 2, '-'.Side::Right->value, 1);
        }
    }

    private function outline(string $work, int $channels, string $ending, ?int $only): void
    {
        $waveform = fopen("{$work}/waveform", 'r') ?: throw new RuntimeException('A work file is gone.');
        $levels = array_map(fn (int $level): OutFile => $this->spool->file($work, "overview-{$level}{$ending}", 'its outline'), array_keys(Overview::BINS_PER_POINT));
        try {
            Overview::write($waveform, $channels, array_map(static fn (OutFile $file): mixed => $file->stream(), $levels), $only);
        } catch (NotWritten) {
            $levels[0]->full();
        } finally {
            fclose($waveform);
        }
        array_map(static fn (OutFile $file) => $file->close(), $levels);
    }

    private function keep(string $work, string $part, string $bytes): void
    {
        $file = $this->spool->file($work, $part, 'what was measured');
        $file->write($bytes);
        $file->close();
    }

    /**
     * @param Closure(): mixed $tick
     *
     * @return Generator<SourceBlocks>
     */
    private static function minutes(string $work, int $channels, Closure $tick): Generator
    {
        $blocks = fopen("{$work}/blocks", 'r') ?: throw new RuntimeException('A work file is gone.');
        try {
            foreach (SourceBlocks::fromStream($blocks, $channels) as $minute) {
                yield $minute;
                $tick();
            }
        } finally {
            fclose($blocks);
        }
    }

    /**
     * @param Closure(): mixed $tick
     *
     * @return Generator<string>
     */
    private static function records(string $work, Closure $tick): Generator
    {
        $records = fopen("{$work}/".self::RECORDS, 'r') ?: throw new RuntimeException('A work file is gone.');
        try {
            while ('' !== ($bytes = (string) fread($records, self::RECORDS_AT_ONCE))) {
                yield $bytes;
                $tick();
            }
        } finally {
            fclose($records);
        }
    }
}
