<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Generator;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Wattage\App\Media\Ffmpeg;
use Wattage\App\Media\Refused;
use Wattage\Core\Clarity\Understood;
use Wattage\Core\Signal\PcmDecoder;
use Wattage\Core\Signal\PcmFormat;

#[AsCommand('wattage:clarity', 'Says how well speech is understood in programmes, from the sounds themselves: STOI and extended STOI of the speech alone against each.')]
final class ClarityCommand extends Command
{
    /** A minute is compared at a time. */
    private const AT_ONCE = 60 * Understood::RATE;

    public function __construct(private readonly Ffmpeg $ffmpeg)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('speech', InputArgument::REQUIRED, 'the speech alone, as from a delivery of stems')
            ->addArgument('programmes', InputArgument::REQUIRED | InputArgument::IS_ARRAY, 'mixes with the same speech at the same times');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        /** @var string $speech */
        $speech = $input->getArgument('speech');
        /** @var list<string> $programmes */
        $programmes = $input->getArgument('programmes');
        foreach ($programmes as $programme) {
            try {
                $found = $this->compared($speech, $programme);
            } catch (Refused $reason) {
                $output->writeln($reason->getMessage());

                return self::FAILURE;
            }
            $output->writeln(null === $found
                ? basename($programme).': nobody speaks in “'.basename($speech).'”.'
                : \sprintf('%s: STOI %.3f, extended STOI %.3f', basename($programme), ...$found));
        }

        return self::SUCCESS;
    }

    /**
     * @return ?array{float, float}
     *
     * @throws Refused
     */
    private function compared(string $speech, string $programme): ?array
    {
        $understood = new Understood();
        $plain = $extended = 0.0;
        $segments = 0;
        $others = $this->minutes($programme);
        foreach ($this->minutes($speech) as $minute) {
            $other = $others->valid() ? $others->current() : [];
            $others->next();
            $length = min(\count($minute), \count($other));
            $found = $understood->of(\array_slice($minute, 0, $length), \array_slice($other, 0, $length));
            if (null !== $found) {
                $plain += $found[0] * $found[2];
                $extended += $found[1] * $found[2];
                $segments += $found[2];
            }
        }

        return 0 === $segments ? null : [$plain / $segments, $extended / $segments];
    }

    /**
     * @return Generator<int, list<float>> mean of the channels, {@see Understood::RATE} a second
     *
     * @throws Refused
     */
    private function minutes(string $file): Generator
    {
        $name = basename($file);
        is_file($file) && is_readable($file) || throw new Refused("There is no file “{$name}” that can be read here.");
        $facts = $this->ffmpeg->probe($file, $name);
        $format = PcmFormat::of($facts->channels, $facts->bits);
        $bytes = '';
        $wanted = self::AT_ONCE * $format->bytesPerFrame();
        foreach ($this->ffmpeg->decode($file, $name, $facts, Understood::RATE) as $piece) {
            $bytes .= $piece;
            while (\strlen($bytes) >= $wanted) {
                yield self::mono(substr($bytes, 0, $wanted), $format);
                $bytes = substr($bytes, $wanted);
            }
        }
        yield self::mono($bytes, $format);
    }

    /** @return list<float> */
    private static function mono(string $bytes, PcmFormat $format): array
    {
        $scale = 1.0 / $format->fullScale();
        $samples = array_map(static fn (int $x): float => $x * $scale, array_values(PcmDecoder::decode($bytes, $format)));
        if (1 === $format->channels) {
            return $samples;
        }
        $mono = [];
        for ($i = 1, $n = \count($samples); $i < $n; $i += 2) {
            $mono[] = 0.5 * ($samples[$i - 1] + $samples[$i]);
        }

        return $mono;
    }
}
