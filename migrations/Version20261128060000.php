<?php

declare(strict_types=1);

namespace Wattage\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128060000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Recipes, and deliveries of any kind with what came of them';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE recipe (id UUID NOT NULL, account_id UUID NOT NULL, name VARCHAR(120) NOT NULL, pattern VARCHAR(120) NOT NULL, files JSON NOT NULL, created_at TIMESTAMP(0) WITHOUT TIME ZONE NOT NULL, PRIMARY KEY (id))');
        $this->addSql('CREATE INDEX IDX_DA88B1379B6B5FBA ON recipe (account_id)');
        $this->addSql('ALTER TABLE recipe ADD CONSTRAINT FK_DA88B1379B6B5FBA FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE NOT DEFERRABLE');

        $this->addSql('ALTER TABLE account ADD has_had_recipes BOOLEAN DEFAULT FALSE NOT NULL');
        $this->addSql('ALTER TABLE account ALTER has_had_recipes DROP DEFAULT');

        $this->addSql('ALTER TABLE delivery ADD document JSON DEFAULT NULL');
        $this->addSql("UPDATE delivery SET document = json_build_object('format', 'wav', 'bits', CASE format WHEN 'pcm16' THEN 16 WHEN 'pcm24' THEN 24 ELSE 32 END, 'target', json_build_object('loudness', NULL, 'truePeak', NULL))");
        $this->addSql('ALTER TABLE delivery ALTER document SET NOT NULL');
        $this->addSql('ALTER TABLE delivery ALTER document DROP DEFAULT');
        $this->addSql('ALTER TABLE delivery DROP format');
        $this->addSql('ALTER TABLE delivery ADD handover UUID DEFAULT NULL');
        $this->addSql('UPDATE delivery SET handover = id');
        $this->addSql('ALTER TABLE delivery ALTER handover SET NOT NULL');
        $this->addSql('ALTER TABLE delivery ALTER handover DROP DEFAULT');
        foreach (['recipe' => 'VARCHAR(120)', 'pattern' => 'VARCHAR(120)'] as $name => $type) {
            $this->addSql("ALTER TABLE delivery ADD {$name} {$type} DEFAULT '' NOT NULL");
            $this->addSql("ALTER TABLE delivery ALTER {$name} DROP DEFAULT");
        }
        $this->addSql("UPDATE delivery SET pattern = '{project} r{revision}'");
        $this->addSql("ALTER TABLE delivery ADD tags JSON DEFAULT '[]' NOT NULL");
        $this->addSql('ALTER TABLE delivery ALTER tags DROP DEFAULT');
        $this->addSql('ALTER TABLE delivery ADD outcome JSON DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE recipe');
        $this->addSql('ALTER TABLE account DROP has_had_recipes');
        $this->addSql("ALTER TABLE delivery ADD format VARCHAR(10) DEFAULT 'pcm24' NOT NULL");
        $this->addSql('ALTER TABLE delivery ALTER format DROP DEFAULT');
        foreach (['document', 'handover', 'recipe', 'pattern', 'tags', 'outcome'] as $name) {
            $this->addSql("ALTER TABLE delivery DROP {$name}");
        }
    }
}
