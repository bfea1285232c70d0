<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Wattage\App\Media\MediaDirectory;
use Wattage\App\Media\Refused;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Timeline\Mix;

/** A command that makes a file of a mix JSON file and the media beside it, without database or web server. */
abstract class MixFileCommand extends Command
{
    public function __construct(private readonly MediaDirectory $media)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('mix', InputArgument::REQUIRED, 'the mix JSON file')
            ->addOption('media', null, InputOption::VALUE_REQUIRED, 'directory with the media files that the sources name', '.')
            ->addOption('out', null, InputOption::VALUE_REQUIRED, 'the file to write');
    }

    /** What is asked for beside a mix file that exists and --out, where it is missing or wrong. */
    protected function asksFor(InputInterface $input): ?string
    {
        return null;
    }

    /**
     * @param string $json as it stands in the file
     * @param array<string, PcmStream> $sounds by source id, at the rate of the mix
     *
     * @return int the exit code
     *
     * @throws Problem|Refused
     */
    abstract protected function make(Mix $mix, string $json, array $sounds, string $out, InputInterface $input, OutputInterface $output): int;

    final protected function execute(InputInterface $input, OutputInterface $output): int
    {
        /** @var array{media: string, out: ?string} $options */
        $options = $input->getOptions();
        $mixFile = $input->getArgument('mix');
        $asked = $this->asksFor($input);
        if (null !== $asked || null === $options['out'] || !\is_string($mixFile) || !is_file($mixFile)) {
            $output->writeln('Name a mix file that exists, and --out=FILE'.(null === $asked ? '.' : ", {$asked}."));

            return self::INVALID;
        }
        try {
            $json = (string) file_get_contents($mixFile);
            $mix = MixDocument::decode($json);
            $sounds = [];
            foreach (MediaDirectory::files($json) as $id => $file) {
                $sounds[$id] = $this->media->sound($mix, $id, $options['media'], $file);
            }

            return $this->make($mix, $json, $sounds, $options['out'], $input, $output);
        } catch (Problem $problem) {
            $output->writeln(trim("{$problem->field()}: {$problem->getMessage()}", ': '));

            return self::FAILURE;
        } catch (Refused $reason) {
            $output->writeln($reason->getMessage());

            return self::FAILURE;
        }
    }
}
