<?php

declare(strict_types=1);

// Writes the table of edits in docs/formats.md from docs/edits.yaml. CatalogueTest says when it is out of date.

use Wattage\Tests\support\Catalogue;
use Wattage\Tests\support\EditsTable;

require __DIR__.'/../vendor/autoload.php';

file_put_contents(EditsTable::FILE, (new EditsTable(Catalogue::read()))->inPlace());
