<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Wattage\App\Media\MediaDirectory;
use Wattage\App\Media\Refused;
use Wattage\Core\Bands\BandMeter;
use Wattage\Core\Bands\SourceBands;
use Wattage\Core\Ducking\Dip;
use Wattage\Core\Ducking\Ducker;
use Wattage\Core\Ducking\Listening;
use Wattage\Core\Ducking\PlainSpectra;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Speech\Activity;
use Wattage\Core\Speech\SpeechChance;
use Wattage\Core\Speech\SpeechLevels;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Mix;

#[AsCommand('wattage:duck', 'Runs the ducking rules of a mix JSON file, or the usual one where it has none, and writes the mix with its lanes.')]
final class DuckCommand extends MixFileCommand
{
    protected function make(Mix $mix, string $json, array $sounds, string $out, InputInterface $input, OutputInterface $output): int
    {
        $mix = [] === $mix->rules ? $mix->withRule(DuckRule::usual($mix)) : $mix;
        $blocks = $chances = $bands = [];
        foreach ($sounds as $id => $sound) {
            [$blocks[$id], $chances[$id], $bands[$id]] = $this->measured($sound, $mix->source($id)->length, $mix->rate);
        }
        $this->write($this->ducked($mix, $blocks, $chances, $bands, $output), $json, $out);

        return self::SUCCESS;
    }

    /** @return array{SourceBlocks, SpeechChance, SourceBands} */
    private function measured(PcmStream $sound, int $length, int $rate): array
    {
        [$blocks, $waveform, $bands, $records] = array_map(static fn (string $mode): mixed => fopen('php://temp', $mode) ?: throw new Refused('There is no room for temporary files.'), ['w+', 'w', 'w+', 'w+']);
        $measurer = new SourceMeasurer($sound->format(), $rate, $blocks, $waveform, new BandMeter($sound->format(), $rate, $rate, $bands, $records));
        for ($at = 0; $at < $length; $at += $rate) {
            $measurer->push($sound->read($at, min($rate, $length - $at)));
        }
        $measurer->finish();
        $channels = $sound->format()->channels;
        [$blocks, $bands, $records] = array_map(static function (mixed $stream): string {
            rewind($stream);

            return (string) stream_get_contents($stream);
        }, [$blocks, $bands, $records]);

        return [SourceBlocks::fromBytes($blocks, $channels), SpeechChance::ofRecords([$records]), SourceBands::fromBytes($bands, $channels)];
    }

    /**
     * @param array<string, SourceBlocks> $blocks by source
     * @param array<string, SpeechChance> $chances likewise
     * @param array<string, SourceBands> $bands likewise
     */
    private function ducked(Mix $mix, array $blocks, array $chances, array $bands, OutputInterface $output): Mix
    {
        $levels = array_map(SpeechLevels::of(...), $blocks);
        $listening = new Listening(static fn (string $id, float $sensitivity): array => $mix->source($id)->marks->applied(Activity::in($levels[$id], $mix->rate, $sensitivity, $chances[$id])));
        $tenthsOf = static fn (string $id): SourceTenths => SourceTenths::of($blocks[$id])->withBands(static fn (): SourceBands => $bands[$id]);
        $ducker = new Ducker(
            $mix,
            $listening,
            static fn (Mix $bare): MixFigures => MixFigures::of($bare, $tenthsOf),
            new PlainSpectra($tenthsOf, static fn (string $id): SourceBands => $bands[$id]),
        );
        foreach ($mix->rules as $rule) {
            $dips = $ducker->dips($rule);
            $depths = array_map(static fn (Dip $dip): float => $dip->depth + $dip->band, $dips);
            $output->writeln([] === $depths
                ? "{$rule->name}: no speech was found that asks for a dip."
                : \sprintf('%s: %d dips, %.1f to %.1f dB.', $rule->name, \count($depths), max($depths), min($depths)));
        }

        return $ducker->applied();
    }

    /** The sources keep the files that they name. */
    private function write(Mix $mix, string $before, string $out): void
    {
        /** @var array{sources: list<array{id: string}>} $document */
        $document = json_decode(MixDocument::encode($mix), true);
        $files = MediaDirectory::files($before);
        foreach ($document['sources'] as $i => $source) {
            $document['sources'][$i]['file'] = $files[$source['id']] ?? null;
        }
        $part = "{$out}.part"; // what carries the final name is whole
        $json = json_encode($document, \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE | \JSON_PRESERVE_ZERO_FRACTION);
        false !== @file_put_contents($part, $json."\n") || throw new Refused("{$out} cannot be written. Choose another place.");
        rename($part, $out);
    }
}
