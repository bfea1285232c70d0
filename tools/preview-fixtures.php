<?php

declare(strict_types=1);

// Writes web/src/preview/fixtures.json from the core. ScreenTest says when it is out of date.

use Wattage\Tests\support\PreviewFixtures;

require __DIR__.'/../vendor/autoload.php';

file_put_contents(PreviewFixtures::FILE, PreviewFixtures::written());
