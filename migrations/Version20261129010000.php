<?php

declare(strict_types=1);

namespace Wattage\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129010000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Sound is told by a quick digest; wattage:upgrade works it out, with the bands of what was taken in before';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE source DROP sound_sha256');
        $this->addSql('ALTER TABLE source ADD sound_digest VARCHAR(32) DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE source DROP sound_digest');
        $this->addSql('ALTER TABLE source ADD sound_sha256 VARCHAR(64) DEFAULT NULL');
    }
}
