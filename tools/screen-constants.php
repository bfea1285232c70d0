<?php

declare(strict_types=1);

// Writes web/src/preview/constants.ts from the core. ScreenTest says when it is out of date.

use Wattage\Tests\support\ScreenConstants;

require __DIR__.'/../vendor/autoload.php';

file_put_contents(ScreenConstants::FILE, ScreenConstants::written());
