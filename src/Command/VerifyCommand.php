<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Doctrine\DBAL\Connection;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Wattage\App\Media\MediaStore;
use Wattage\App\Storage\MissingFile;

#[AsCommand('wattage:verify', 'Reads all stored sound and deliveries and compares them with their checksums; as after a backup was restored.')]
final class VerifyCommand extends Command
{
    /** File, checksum, and what people call it. Copies of a project share files. */
    private const FILES = "SELECT DISTINCT 'sources/' || media || '/pcm' AS path, sound_sha256 AS sha256, name FROM source WHERE state = 'ready'
        UNION SELECT DISTINCT 'sources/' || media || '/original', sha256, name FROM source WHERE state = 'ready'
        UNION SELECT 'deliveries/' || id || '.wav', sha256, 'revision ' || revision FROM delivery WHERE sha256 IS NOT NULL ORDER BY path";

    public function __construct(private readonly Connection $database, private readonly MediaStore $store)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $number = $wrong = 0;
        foreach ($this->database->iterateAssociative(self::FILES) as $file) {
            /** @var array{path: string, sha256: ?string, name: string} $file */
            $state = $this->state($file['path'], $file['sha256']);
            ++$number;
            if ('' !== $state) {
                ++$wrong;
                $output->writeln("{$file['path']} ({$file['name']}) {$state}");
            }
        }
        $output->writeln("{$number} files, {$wrong} of them missing or damaged");

        return 0 === $wrong ? self::SUCCESS : self::FAILURE;
    }

    private function state(string $path, ?string $sha256): string
    {
        try {
            return $this->store->digest($path) === $sha256 ? '' : 'is damaged';
        } catch (MissingFile) {
            return 'is missing';
        }
    }
}
