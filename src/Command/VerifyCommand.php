<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Generator;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Wattage\App\Entity\Delivery;
use Wattage\App\Media\MediaStore;
use Wattage\App\Storage\MissingFile;

#[AsCommand('wattage:verify', 'Reads all stored sound and deliveries and compares them with their checksums; as after a backup was restored.')]
final class VerifyCommand extends Command
{
    /** Of sources. Copies of a project share files. */
    private const FILES = "SELECT DISTINCT 'sources/' || media || '/pcm' AS path, sound_digest AS digest, name FROM source WHERE state = 'ready'
        UNION SELECT DISTINCT 'sources/' || media || '/original', sha256, name FROM source WHERE state = 'ready' ORDER BY path";

    public function __construct(private readonly Connection $database, private readonly EntityManagerInterface $entities, private readonly MediaStore $store)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $number = $wrong = 0;
        foreach ($this->files() as [$path, $digest, $name]) {
            $state = $this->state($path, $digest);
            ++$number;
            if ('' !== $state) {
                ++$wrong;
                $output->writeln("{$path} ({$name}) {$state}");
            }
        }
        $output->writeln("{$number} files, {$wrong} of them missing or damaged");

        return 0 === $wrong ? self::SUCCESS : self::FAILURE;
    }

    /** @return Generator<array{string, ?string, string}> path, checksum, and what people call it */
    private function files(): Generator
    {
        foreach ($this->database->iterateNumeric(self::FILES) as $file) {
            /** @var array{string, ?string, string} $file */
            yield $file;
        }
        /** @var Delivery $delivery */
        foreach ($this->entities->createQuery('SELECT d FROM '.Delivery::class.' d WHERE d.sha256 IS NOT NULL ORDER BY d.id')->toIterable() as $delivery) {
            yield [$delivery->path(), $delivery->sha256, "revision {$delivery->revision}"];
        }
    }

    private function state(string $path, ?string $digest): string
    {
        try {
            return null !== $digest && $this->store->digest($path, MediaStore::algorithmOf($digest)) === $digest ? '' : 'is damaged';
        } catch (MissingFile) {
            return 'is missing';
        }
    }
}
