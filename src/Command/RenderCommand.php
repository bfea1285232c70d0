<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Wattage\App\Media\Refused;
use Wattage\Core\Render\WavRender;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Timeline\Mix;

#[AsCommand('wattage:render', 'Renders a mix JSON file and the media beside it to a WAV file.')]
final class RenderCommand extends MixFileCommand
{
    protected function configure(): void
    {
        parent::configure();
        $this->addOption('format', null, InputOption::VALUE_REQUIRED, 'pcm16, pcm24 or float32', SampleFormat::Pcm24->value);
    }

    protected function asksFor(InputInterface $input): ?string
    {
        return null === self::format($input) ? 'and a --format of pcm16, pcm24 or float32' : null;
    }

    protected function make(Mix $mix, string $json, array $sounds, string $out, InputInterface $input, OutputInterface $output): void
    {
        $format = self::format($input) ?? SampleFormat::Pcm24;
        $part = "{$out}.part"; // what carries the final name is whole
        $stream = @fopen($part, 'w') ?: throw new Refused("{$out} cannot be written. Choose another place.");
        $shown = -1;
        $render = new WavRender($mix, $sounds, $format);
        foreach ($render->writeTo($stream) as $done) {
            if ($output->isDecorated() && $shown !== (int) (100 * $done)) {
                $shown = (int) (100 * $done);
                $output->write("\r{$shown} %");
            }
        }
        fclose($stream);
        rename($part, $out);
        $output->writeln(($shown >= 0 ? "\r" : '')."Rendered {$out}: ".\Wattage\Core\Time\Timecode::clock($mix->length(), $mix->rate));
        $clipping = $render->clipping;
        if ($clipping->samples > 0) {
            $what = SampleFormat::Float32 === $format ? 'pass full scale' : 'were flattened at full scale';
            $first = \Wattage\Core\Time\Timecode::clock($clipping->places[0][0], $mix->rate);
            $output->writeln(\sprintf('%s samples %s, the first at %s; the highest by %.1f dB. Lower what is loud there, or the programme fader.', number_format($clipping->samples), $what, $first, 20.0 * log10($clipping->highest)));
        }
    }

    private static function format(InputInterface $input): ?SampleFormat
    {
        $format = $input->getOption('format');

        return \is_string($format) ? SampleFormat::tryFrom($format) : null;
    }
}
