<?php

declare(strict_types=1);

namespace Wattage\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128080000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Targets that an account keeps';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE account ADD targets JSON DEFAULT '[]' NOT NULL");
        $this->addSql('ALTER TABLE account ALTER targets DROP DEFAULT');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE account DROP targets');
    }
}
