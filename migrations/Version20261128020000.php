<?php

declare(strict_types=1);

namespace Wattage\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128020000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Revisions as differences, requests that are done once, who is there, invitations, comments, post';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE revision ADD difference JSON COMPRESSION lz4 DEFAULT NULL');
        $this->addSql('ALTER TABLE revision ALTER mix DROP NOT NULL');
        $this->addSql('ALTER TABLE revision ADD since_whole INT DEFAULT 0 NOT NULL');
        $this->addSql('ALTER TABLE revision ALTER since_whole DROP DEFAULT');
        $this->addSql('ALTER TABLE revision DROP edit');

        $this->addSql('ALTER TABLE project ADD moved_by_id UUID DEFAULT NULL');
        $this->addSql('ALTER TABLE project ADD moved VARCHAR(450) DEFAULT NULL');
        $this->addSql('ALTER TABLE project ADD comments_version INT DEFAULT 0 NOT NULL');
        $this->addSql('ALTER TABLE project ALTER comments_version DROP DEFAULT');
        $this->addSql('ALTER TABLE project ADD CONSTRAINT FK_2FB3D0EEB8EB5A7A FOREIGN KEY (moved_by_id) REFERENCES account (id) ON DELETE SET NULL NOT DEFERRABLE');
        $this->addSql('CREATE INDEX IDX_2FB3D0EEB8EB5A7A ON project (moved_by_id)');

        $this->addSql('CREATE TABLE done_request (account_id UUID NOT NULL, key VARCHAR(64) NOT NULL, fingerprint VARCHAR(64) NOT NULL, result VARCHAR(64) NOT NULL, created_at TIMESTAMP(0) WITHOUT TIME ZONE NOT NULL, PRIMARY KEY (account_id, key))');

        // Who is there is worth nothing after a crash of the database.
        $this->addSql('CREATE UNLOGGED TABLE presence (project_id UUID NOT NULL, screen UUID NOT NULL, account_id UUID NOT NULL, holds VARCHAR(200) DEFAULT NULL, seen_at TIMESTAMP(0) WITHOUT TIME ZONE NOT NULL, PRIMARY KEY (project_id, screen))');

        $this->addSql('ALTER TABLE account ADD generation INT DEFAULT 0 NOT NULL');
        $this->addSql('ALTER TABLE account ALTER generation DROP DEFAULT');
        $this->addSql('CREATE TABLE invitation (id UUID NOT NULL, created_at TIMESTAMP(0) WITHOUT TIME ZONE NOT NULL, expires_at TIMESTAMP(0) WITHOUT TIME ZONE NOT NULL, accepted_at TIMESTAMP(0) WITHOUT TIME ZONE DEFAULT NULL, email VARCHAR(180) NOT NULL, role VARCHAR(10) NOT NULL, token_hash VARCHAR(64) NOT NULL, project_id UUID NOT NULL, invited_by_id UUID NOT NULL, PRIMARY KEY (id))');
        $this->addSql('CREATE UNIQUE INDEX UNIQ_F11D61A2B3BC57DA ON invitation (token_hash)');
        $this->addSql('CREATE INDEX IDX_F11D61A2166D1F9C ON invitation (project_id)');
        $this->addSql('CREATE INDEX IDX_F11D61A2A7B4A7E3 ON invitation (invited_by_id)');
        $this->addSql('ALTER TABLE invitation ADD CONSTRAINT FK_F11D61A2166D1F9C FOREIGN KEY (project_id) REFERENCES project (id) ON DELETE CASCADE NOT DEFERRABLE');
        $this->addSql('ALTER TABLE invitation ADD CONSTRAINT FK_F11D61A2A7B4A7E3 FOREIGN KEY (invited_by_id) REFERENCES account (id) ON DELETE CASCADE NOT DEFERRABLE');
        $this->addSql('CREATE TABLE password_reset (id UUID NOT NULL, expires_at TIMESTAMP(0) WITHOUT TIME ZONE NOT NULL, used_at TIMESTAMP(0) WITHOUT TIME ZONE DEFAULT NULL, token_hash VARCHAR(64) NOT NULL, account_id UUID NOT NULL, PRIMARY KEY (id))');
        $this->addSql('CREATE UNIQUE INDEX UNIQ_B1017252B3BC57DA ON password_reset (token_hash)');
        $this->addSql('CREATE INDEX IDX_B10172529B6B5FBA ON password_reset (account_id)');
        $this->addSql('ALTER TABLE password_reset ADD CONSTRAINT FK_B10172529B6B5FBA FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE NOT DEFERRABLE');

        $this->addSql('CREATE TABLE comment (id UUID NOT NULL, created_at TIMESTAMP(0) WITHOUT TIME ZONE NOT NULL, done_at TIMESTAMP(0) WITHOUT TIME ZONE DEFAULT NULL, at BIGINT NOT NULL, source VARCHAR(64) DEFAULT NULL, position BIGINT DEFAULT NULL, text TEXT NOT NULL, project_id UUID NOT NULL, author_id UUID NOT NULL, done_by_id UUID DEFAULT NULL, PRIMARY KEY (id))');
        $this->addSql('CREATE INDEX IDX_9474526C166D1F9C ON comment (project_id)');
        $this->addSql('CREATE INDEX IDX_9474526CF675F31B ON comment (author_id)');
        $this->addSql('CREATE INDEX IDX_9474526C63408F6A ON comment (done_by_id)');
        $this->addSql('ALTER TABLE comment ADD CONSTRAINT FK_9474526C166D1F9C FOREIGN KEY (project_id) REFERENCES project (id) ON DELETE CASCADE NOT DEFERRABLE');
        $this->addSql('ALTER TABLE comment ADD CONSTRAINT FK_9474526CF675F31B FOREIGN KEY (author_id) REFERENCES account (id) NOT DEFERRABLE');
        $this->addSql('ALTER TABLE comment ADD CONSTRAINT FK_9474526C63408F6A FOREIGN KEY (done_by_id) REFERENCES account (id) NOT DEFERRABLE');

        $this->addSql('CREATE TABLE posted_mail (id UUID NOT NULL, sent_at TIMESTAMP(0) WITHOUT TIME ZONE NOT NULL, recipient VARCHAR(180) NOT NULL, subject VARCHAR(400) NOT NULL, body TEXT NOT NULL, PRIMARY KEY (id))');
    }

    public function down(Schema $schema): void
    {
        foreach (['done_request', 'presence', 'invitation', 'password_reset', 'comment', 'posted_mail'] as $table) {
            $this->addSql("DROP TABLE {$table}");
        }
        $this->addSql('ALTER TABLE account DROP generation');
        $this->addSql('ALTER TABLE project DROP comments_version');
        $this->addSql('ALTER TABLE project DROP moved');
        $this->addSql('ALTER TABLE project DROP moved_by_id');
        $this->addSql('ALTER TABLE revision ADD edit JSONB DEFAULT NULL');
        $this->addSql('ALTER TABLE revision DROP since_whole');
        $this->addSql('ALTER TABLE revision DROP difference');
    }
}
