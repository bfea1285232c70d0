<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\App\Media\SourceUpgrade;

#[AsCommand('wattage:upgrade', 'After an update: works out what sources taken in by an earlier version lack. Does nothing when nothing is.')]
final class UpgradeCommand extends Command
{
    public function __construct(private readonly EntityManagerInterface $entities, private readonly SourceUpgrade $upgrade)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        foreach ($this->entities->getRepository(Source::class)->findBy(['state' => SourceState::Ready, 'soundDigest' => null]) as $source) {
            $output->writeln("Measuring {$source->name}");
            $this->upgrade->of($source);
            $this->entities->flush();
        }

        return self::SUCCESS;
    }
}
