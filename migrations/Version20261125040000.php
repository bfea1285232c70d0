<?php

declare(strict_types=1);

namespace Wattage\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125040000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Snapshots, average levels and pictures of sources';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE snapshot (id UUID NOT NULL, created_at TIMESTAMP(0) WITHOUT TIME ZONE NOT NULL, revision INT NOT NULL, name VARCHAR(200) NOT NULL, project_id UUID NOT NULL, author_id UUID NOT NULL, PRIMARY KEY (id))');
        $this->addSql('CREATE INDEX IDX_2C4D1535166D1F9C ON snapshot (project_id)');
        $this->addSql('CREATE INDEX IDX_2C4D1535F675F31B ON snapshot (author_id)');
        $this->addSql('ALTER TABLE snapshot ADD CONSTRAINT FK_2C4D1535166D1F9C FOREIGN KEY (project_id) REFERENCES project (id) ON DELETE CASCADE NOT DEFERRABLE');
        $this->addSql('ALTER TABLE snapshot ADD CONSTRAINT FK_2C4D1535F675F31B FOREIGN KEY (author_id) REFERENCES account (id) NOT DEFERRABLE');
        $this->addSql('ALTER TABLE source ADD average_dbfs DOUBLE PRECISION DEFAULT NULL');
        $this->addSql("ALTER TABLE source ADD picture VARCHAR(10) DEFAULT 'none' NOT NULL");
        $this->addSql('ALTER TABLE source ALTER picture DROP DEFAULT');
        $this->addSql('ALTER TABLE source ADD picture_job_id UUID DEFAULT NULL');
        $this->addSql('ALTER TABLE source ADD CONSTRAINT FK_5F8A7F739A04F8B9 FOREIGN KEY (picture_job_id) REFERENCES job (id) ON DELETE SET NULL NOT DEFERRABLE');
        $this->addSql('CREATE UNIQUE INDEX UNIQ_5F8A7F739A04F8B9 ON source (picture_job_id)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE snapshot');
        $this->addSql('ALTER TABLE source DROP average_dbfs');
        $this->addSql('ALTER TABLE source DROP picture');
        $this->addSql('ALTER TABLE source DROP picture_job_id');
    }
}
