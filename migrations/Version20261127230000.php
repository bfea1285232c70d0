<?php

declare(strict_types=1);

namespace Wattage\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261127230000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Sources that share their files with copies, and what of a delivery passes full scale';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE source ADD media UUID DEFAULT NULL');
        $this->addSql('UPDATE source SET media = id');
        $this->addSql('ALTER TABLE source ALTER media SET NOT NULL');
        $this->addSql('CREATE INDEX IDX_5F8A7F736A2CA10C ON source (media)');
        $this->addSql('ALTER TABLE delivery ADD clipping JSON DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE source DROP media');
        $this->addSql('ALTER TABLE delivery DROP clipping');
    }
}
