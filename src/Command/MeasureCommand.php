<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Wattage\App\Media\Ffmpeg;
use Wattage\App\Media\FileLoudness;
use Wattage\App\Media\Refused;
use Wattage\Core\Loudness\ChannelWeights;
use Wattage\Core\Loudness\Loudness;

#[AsCommand('wattage:measure', 'Measures the loudness of a file: integrated, range, highest momentary and short-term, true peak, sample peak.')]
final class MeasureCommand extends Command
{
    public function __construct(private readonly Ffmpeg $ffmpeg, private readonly FileLoudness $loudness)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED)->addOption('json', null, InputOption::VALUE_NONE, 'Print JSON; what cannot be told is null');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        /** @var string $file */
        $file = $input->getArgument('file');
        $name = basename($file);
        if (!is_file($file) || !is_readable($file)) {
            $output->writeln("There is no file “{$name}” that can be read here.");

            return self::FAILURE;
        }
        try {
            $facts = $this->ffmpeg->probe($file, $name, ChannelWeights::MOST);
            $loudness = $this->loudness->of($file, $name, $facts);
        } catch (Refused $reason) {
            $output->writeln($reason->getMessage());

            return self::FAILURE;
        }
        $output->writeln(true === $input->getOption('json') ? self::json($loudness, $facts->channels, $facts->rate) : self::text($loudness, $facts->channels, $facts->rate));

        return self::SUCCESS;
    }

    private static function json(Loudness $loudness, int $channels, int $rate): string
    {
        $round = static fn (?float $value): ?float => null === $value ? null : round($value, 2);

        return json_encode([
            'integratedLufs' => $round($loudness->integrated),
            'rangeLu' => $round($loudness->range),
            'maxMomentaryLufs' => $round($loudness->maxMomentary),
            'maxShortTermLufs' => $round($loudness->maxShortTerm),
            'truePeakDbtp' => $round($loudness->truePeak),
            'samplePeakDbfs' => $round($loudness->samplePeak),
            'durationSeconds' => round($loudness->frames / $rate, 3),
            'channels' => $channels,
            'sampleRate' => $rate,
        ], \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
    }

    private static function text(Loudness $loudness, int $channels, int $rate): string
    {
        $line = static fn (string $what, ?float $value, string $unit, string $otherwise): string => \sprintf('%-24s %s', $what, null === $value ? $otherwise : str_replace('-', '−', \sprintf('%.1f %s', $value, $unit)));
        $short = $loudness->frames < 0.4 * $rate ? 'too short to say: 400 ms are needed' : 'silence: nothing passes the gate';
        $shorter = $loudness->frames < 3 * $rate ? 'too short to say: 3 s are needed' : 'silence';

        return implode("\n", [
            $line('Integrated loudness', $loudness->integrated, 'LUFS', $short),
            $line('Loudness range', $loudness->frames < 3 * $rate ? null : $loudness->range, 'LU', $shorter),
            $line('Highest momentary', $loudness->maxMomentary, 'LUFS', $short),
            $line('Highest short-term', $loudness->maxShortTerm, 'LUFS', $shorter),
            $line('True peak', $loudness->truePeak, 'dBTP', 'digital silence'),
            $line('Sample peak', $loudness->samplePeak, 'dBFS', 'digital silence'),
            $line('RMS', $loudness->rms, 'dBFS', 'digital silence'),
            $line('VU, 0 VU = -20 dBFS', $loudness->vu(-20.0), 'VU', 'digital silence'),
            \sprintf('%-24s %.3f s, %d channel%s at %d Hz', 'Sound', $loudness->frames / $rate, $channels, 1 === $channels ? '' : 's', $rate),
        ]);
    }
}
