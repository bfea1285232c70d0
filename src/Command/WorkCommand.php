<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Wattage\App\Work\Worker;

#[AsCommand('wattage:work', 'A worker: takes jobs one after the other. As many as wanted, on as many machines as wanted.')]
final class WorkCommand extends Command
{
    public function __construct(private readonly Worker $worker)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('short', null, InputOption::VALUE_NONE, 'Only short work, so that there is always somebody for it')
            ->addOption('jobs', null, InputOption::VALUE_REQUIRED, 'End after so many', (string) \PHP_INT_MAX)
            ->addOption('seconds', null, InputOption::VALUE_REQUIRED, 'End after so long', '3600')
            ->addOption('until-idle', null, InputOption::VALUE_NONE, 'End when nothing waits');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $number = static fn (string $option): int => is_numeric($value = $input->getOption($option)) ? (int) $value : 0;
        $this->worker->run(true === $input->getOption('short'), $number('jobs'), $number('seconds'), true === $input->getOption('until-idle'));

        return self::SUCCESS;
    }
}
