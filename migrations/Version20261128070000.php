<?php

declare(strict_types=1);

namespace Wattage\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128070000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'When sources were recorded, and their cue points and chapters';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE source ADD began_at BIGINT DEFAULT NULL');
        $this->addSql("ALTER TABLE source ADD marks JSON DEFAULT '[]' NOT NULL");
        $this->addSql('ALTER TABLE source ALTER marks DROP DEFAULT');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE source DROP began_at');
        $this->addSql('ALTER TABLE source DROP marks');
    }
}
