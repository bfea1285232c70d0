<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use RuntimeException;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Wattage\App\Media\Ffmpeg;
use Wattage\App\Media\Refused;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Core\Render\PcmStream;
use Wattage\Core\Render\WavRender;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Timeline\Mix;

#[AsCommand('wattage:render', 'Renders a mix JSON file and the media beside it to a WAV file.')]
final class RenderCommand extends Command
{
    public function __construct(private readonly Ffmpeg $ffmpeg)
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
            foreach (self::files($json) as $id => $file) {
                $sounds[$id] = $this->sound($mix, $id, $options['media'], $file);
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

    /** @return array<string, string> media file by source id: its “file”, or its name where it has none */
    private static function files(string $json): array
    {
        /** @var array{sources: list<array{id: string, name: string, file?: string}>} $document */
        $document = json_decode($json, true);
        $files = [];
        foreach ($document['sources'] as $source) {
            $files[$source['id']] = basename($source['file'] ?? $source['name']);
        }

        return $files;
    }

    private function sound(Mix $mix, string $id, string $directory, string $file): PcmStream
    {
        $path = realpath("{$directory}/{$file}");
        if (false === $path || !is_file($path)) {
            throw new Refused("There is no file “{$file}” in {$directory}. Put it there, or name another directory with --media.");
        }
        $facts = $this->ffmpeg->probe($path, $file);
        if ($facts->channels !== $mix->source($id)->channels) {
            throw new Refused("“{$file}” has {$facts->channels} channels, but the mix expects {$mix->source($id)->channels}.");
        }
        $stream = tmpfile() ?: throw new RuntimeException('No room for a temporary file.');
        foreach ($this->ffmpeg->decode($path, $file, $facts, $mix->rate) as $piece) {
            fwrite($stream, $piece);
        }

        return new PcmStream($stream, PcmFormat::of($facts->channels, $facts->bits));
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
