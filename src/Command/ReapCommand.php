<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Wattage\App\Upkeep\Reaper;

#[AsCommand('wattage:reap', 'Removes what nobody needs any more, and says how much. Workers do it every hour by themselves.')]
final class ReapCommand extends Command
{
    public function __construct(private readonly Reaper $reaper)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        foreach ($this->reaper->run() as $what => $number) {
            $output->writeln("{$number} {$what}");
        }

        return self::SUCCESS;
    }
}
