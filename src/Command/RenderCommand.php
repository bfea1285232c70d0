<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Closure;
use DateTimeImmutable;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Filesystem\Filesystem;
use Wattage\App\Handover\About;
use Wattage\App\Handover\FileMaker;
use Wattage\App\Handover\Made;
use Wattage\App\Media\MediaDirectory;
use Wattage\App\Media\Refused;
use Wattage\Core\Handover\FileOrder;
use Wattage\Core\Handover\Tags;
use Wattage\Core\Render\PcmSource;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;

/** Exit codes: 0 made; 1 not made, and why is said; 2 asked in a wrong way; 3 made, but a target was missed. */
#[AsCommand('wattage:render', 'Renders a mix JSON file and the media beside it to files that are handed over.')]
final class RenderCommand extends MixFileCommand
{
    private const MISSED = 3;

    public function __construct(MediaDirectory $media, private readonly FileMaker $files)
    {
        parent::__construct($media);
    }

    protected function configure(): void
    {
        parent::configure();
        $this->addOption('format', null, InputOption::VALUE_REQUIRED, RenderOptions::FORMATS, SampleFormat::Pcm24->value)
            ->addOption('target', null, InputOption::VALUE_REQUIRED, 'loudness to reach, in LUFS')
            ->addOption('true-peak', null, InputOption::VALUE_REQUIRED, 'dBTP that nothing may pass')
            ->addOption('stems', null, InputOption::VALUE_REQUIRED, 'all, or stems with commas in between: a file for each, which add up to the programme')
            ->addOption('range', null, InputOption::VALUE_REQUIRED, 'only from one time to another, such as 0:30-1:15')
            ->addOption('recipe', null, InputOption::VALUE_REQUIRED, 'a JSON file with several files to make; --out is then a directory');
    }

    protected function asksFor(InputInterface $input): ?string
    {
        return RenderOptions::isKnownFormat($input->getOption('format')) ? null : 'and a --format of '.RenderOptions::FORMATS;
    }

    protected function make(Mix $mix, string $json, array $sounds, string $out, InputInterface $input, OutputInterface $output): int
    {
        $named = MediaDirectory::files($json);
        $media = $input->getOption('media');
        $original = static fn (string $id): string => (\is_string($media) ? $media : '.').'/'.($named[$id] ?? '');
        $code = self::SUCCESS;
        foreach (RenderOptions::files($input, $mix, $out) as $path => $order) {
            $made = $this->one($order, $mix, $sounds, $original, $path, $output);
            $this->tell($made, $order, $mix, $path, $output);
            $made->isMet || $code = self::MISSED;
        }

        return $code;
    }

    /**
     * @param array<string, PcmSource> $sounds
     * @param Closure(string): string $original path of the file of a source
     */
    private function one(FileOrder $order, Mix $mix, array $sounds, Closure $original, string $path, OutputInterface $output): Made
    {
        $work = "{$path}.work"; // what carries the final name is whole
        $files = new Filesystem();
        @mkdir($work, 0o700) || throw new Refused("{$path} cannot be written. Choose another place.");
        $shown = -1;
        try {
            $about = new About(new Tags(pathinfo($path, \PATHINFO_FILENAME)), basename($path), bin2hex(random_bytes(16)), new DateTimeImmutable());
            $made = $this->files->make($order, $mix, $sounds, $original, $work, $about, static function (float $done) use ($output, &$shown): void {
                if ($output->isDecorated() && $shown !== (int) (100 * $done)) {
                    $shown = (int) (100 * $done);
                    $output->write("\r{$shown} %");
                }
            });
            rename($made->file, $path);
        } finally {
            $files->remove($work);
        }
        $output->write($shown >= 0 ? "\r" : '');

        return $made;
    }

    private function tell(Made $made, FileOrder $order, Mix $mix, string $path, OutputInterface $output): void
    {
        $found = $made->measured;
        $output->writeln("Rendered {$path}: ".Timecode::clock((int) ($found->frames * $mix->rate / $order->rate), $mix->rate)
            .(null === $found->integrated ? '' : \sprintf(', %.1f LUFS, %.1f dBTP', $found->integrated, $found->truePeak ?? -\INF)));
        if ($made->acts->most > 0.0) {
            $output->writeln(\sprintf('The peak guard held %d places down, by up to %.1f dB, %.1f s in all.', \count($made->acts->places), $made->acts->most, $made->acts->seconds()));
        }
        if (!$made->isMet) {
            $output->writeln('The target was missed: it asks for more than the peaks of this mix leave room for. Tame them, or choose a higher ceiling.');
        }
        $clipping = $made->clipping;
        if ($clipping->samples > 0) {
            $what = SampleFormat::Float32 === $order->samples() ? 'pass full scale' : 'were flattened at full scale';
            $first = Timecode::clock($clipping->places[0][0], $mix->rate);
            $output->writeln(\sprintf('%s samples %s, the first at %s; the highest by %.1f dB. Lower what is loud there, or the programme fader.', number_format($clipping->samples), $what, $first, 20.0 * log10($clipping->highest)));
        }
    }
}
