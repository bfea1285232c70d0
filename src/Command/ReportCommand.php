<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use DateTimeImmutable;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Filesystem\Filesystem;
use Wattage\App\Handover\About;
use Wattage\App\Handover\FileMaker;
use Wattage\App\Handover\Outcome;
use Wattage\App\Handover\Report;
use Wattage\App\Media\Ffmpeg;
use Wattage\App\Media\FileLoudness;
use Wattage\App\Media\MediaDirectory;
use Wattage\App\Media\Refused;
use Wattage\App\Storage\NoRoom;
use Wattage\Core\Handover\Excerpt;
use Wattage\Core\Handover\FileFormat;
use Wattage\Core\Handover\FileOrder;
use Wattage\Core\Handover\GuardActs;
use Wattage\Core\Handover\Tags;
use Wattage\Core\Handover\Target;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;

/** Exit codes: 0 reported; 1 not, and why is said; 2 asked in a wrong way; 3 reported, and a target was missed. */
#[AsCommand('wattage:report', 'Reports on a file with sound, or on what a mix JSON file and the media beside it would be handed over as.')]
final class ReportCommand extends Command
{
    private const MISSED = 3;

    public function __construct(private readonly Ffmpeg $ffmpeg, private readonly FileLoudness $loudness, private readonly MediaDirectory $media, private readonly FileMaker $files, private readonly Report $report)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED, 'a file with sound, or a mix JSON file')
            ->addOption('media', null, InputOption::VALUE_REQUIRED, 'directory with the media files that the sources of a mix name', '.')
            ->addOption('target', null, InputOption::VALUE_REQUIRED, 'LUFS that it is to be at')
            ->addOption('true-peak', null, InputOption::VALUE_REQUIRED, 'dBTP that nothing may pass')
            ->addOption('format', null, InputOption::VALUE_REQUIRED, 'html, pdf, json or csv', 'html')
            ->addOption('out', null, InputOption::VALUE_REQUIRED, 'the file to write; without it the report is printed');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        /** @var array{media: string, target: ?string, true-peak: ?string, format: string, out: ?string} $options */
        $options = $input->getOptions();
        $file = $input->getArgument('file');
        if (!\is_string($file) || !is_file($file) || !\in_array($options['format'], ['html', 'pdf', 'json', 'csv'], true) || ('pdf' === $options['format'] && null === $options['out'])) {
            $output->writeln('Name a file that exists, a --format of html, pdf, json or csv, and for a PDF --out=FILE.');

            return self::INVALID;
        }
        $number = static fn (?string $text): ?float => null === $text ? null : (is_numeric($text) ? (float) $text : \NAN);
        try {
            $target = Target::of($number($options['target']), $number($options['true-peak']));
            $outcome = str_ends_with(strtolower($file), '.json') ? $this->ofMix($file, $options['media'], $target) : $this->ofFile($file, $target);
            $written = $this->report->written($this->report->ofFile(basename($file), hash_file('sha256', $file) ?: '', $outcome), $options['format']);
        } catch (Problem|Refused|NoRoom $reason) {
            $output->writeln($reason->getMessage());

            return self::FAILURE;
        }
        if (null === $options['out']) {
            $output->write($written, false, OutputInterface::OUTPUT_RAW);
        } elseif (\strlen($written) !== @file_put_contents($options['out'], $written)) {
            $output->writeln("{$options['out']} cannot be written. Choose another place.");

            return self::FAILURE;
        }
        $peak = $outcome['truePeak'];

        return $outcome['met'] && (null === $target->truePeak || !\is_float($peak) || $peak <= $target->truePeak + 0.05) ? self::SUCCESS : self::MISSED;
    }

    /**
     * @return array<string, mixed> as {@see Outcome} says it
     *
     * @throws Refused
     */
    private function ofFile(string $file, Target $target): array
    {
        $facts = $this->ffmpeg->probe($file, basename($file));
        $found = $this->loudness->of($file, basename($file), $facts);

        return Outcome::of($found, $facts->rate, 0.0, $target, $target->isMetBy($found), new GuardActs($facts->rate), [], null);
    }

    /**
     * @return array<string, mixed> as {@see Outcome} says it
     *
     * @throws Problem|Refused|NoRoom
     */
    private function ofMix(string $file, string $media, Target $target): array
    {
        $json = (string) file_get_contents($file);
        $mix = MixDocument::decode($json);
        $named = MediaDirectory::files($json);
        $sounds = [];
        foreach ($named as $id => $name) {
            $sounds[$id] = $this->media->sound($mix, $id, $media, $name);
        }
        $work = sys_get_temp_dir().'/wattage-report-'.bin2hex(random_bytes(8));
        mkdir($work, 0o700);
        try {
            $order = new FileOrder(FileFormat::Wav, 24, 0, Mix::DEFAULT_RATE, 2, Excerpt::programme(), $target, false);
            $made = $this->files->make($order, $mix, $sounds, static fn (string $id): string => "{$media}/".($named[$id] ?? ''), $work, new About(new Tags(), '', '', new DateTimeImmutable()), static fn (): mixed => null);
        } finally {
            (new Filesystem())->remove($work);
        }
        $places = array_map(static fn (array $place): array => ['at' => (int) ($place[2] * $mix->rate / $order->rate), 'db' => round($place[3], 2), 'track' => null], $made->acts->places);

        return Outcome::of($made->measured, $order->rate, $made->gain, $target, $made->isMet, $made->acts, $places, null);
    }
}
