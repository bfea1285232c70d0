<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Symfony\Component\Console\Attribute\AsCommand;
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
use Wattage\Core\Render\WavRender;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Timeline\Mix;

#[AsCommand('wattage:render', 'Renders a mix JSON file and the media beside it to a WAV file.')]
final class RenderCommand extends Command
{
    public function __construct(private readonly MediaDirectory $media)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('mix', InputArgument::REQUIRED, 'the mix JSON file')
            ->addOption('media', null, InputOption::VALUE_REQUIRED, 'directory with the media files that the sources name', '.')
            ->addOption('out', null, InputOption::VALUE_REQUIRED, 'the WAV file to write')
            ->addOption('format', null, InputOption::VALUE_REQUIRED, 'pcm16, pcm24 or float32', SampleFormat::Pcm24->value);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        /** @var array{media: string, out: ?string, format: string} $options */
        $options = $input->getOptions();
        $mixFile = $input->getArgument('mix');
        $format = SampleFormat::tryFrom($options['format']);
        if (null === $options['out'] || null === $format || !\is_string($mixFile) || !is_file($mixFile)) {
            $output->writeln('Name a mix file that exists, --out=FILE, and a --format of pcm16, pcm24 or float32.');

            return self::INVALID;
        }
        try {
            $json = (string) file_get_contents($mixFile);
            $mix = MixDocument::decode($json);
            $sounds = [];
            foreach (MediaDirectory::files($json) as $id => $file) {
                $sounds[$id] = $this->media->sound($mix, $id, $options['media'], $file);
            }
            $this->render($mix, $sounds, $format, $options['out'], $output);
        } catch (Problem $problem) {
            $output->writeln(trim("{$problem->field()}: {$problem->getMessage()}", ': '));

            return self::FAILURE;
        } catch (Refused $reason) {
            $output->writeln($reason->getMessage());

            return self::FAILURE;
        }

        return self::SUCCESS;
    }

    /** @param array<string, PcmStream> $sounds */
    private function render(Mix $mix, array $sounds, SampleFormat $format, string $out, OutputInterface $output): void
    {
        $part = "{$out}.part"; // what carries the final name is whole
        $stream = @fopen($part, 'w') ?: throw new Refused("{$out} cannot be written. Choose another place.");
        $shown = -1;
        foreach ((new WavRender($mix, $sounds, $format))->writeTo($stream) as $done) {
            if ($output->isDecorated() && $shown !== (int) (100 * $done)) {
                $shown = (int) (100 * $done);
                $output->write("\r{$shown} %");
            }
        }
        fclose($stream);
        rename($part, $out);
        $output->writeln(($shown >= 0 ? "\r" : '')."Rendered {$out}: ".\Wattage\Core\Time\Timecode::clock($mix->length(), $mix->rate));
    }
}
