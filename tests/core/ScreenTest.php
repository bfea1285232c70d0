<?php

declare(strict_types=1);

namespace Wattage\Tests\core;

use PHPUnit\Framework\TestCase;
use Wattage\Tests\support\PreviewFixtures;
use Wattage\Tests\support\ScreenConstants;

/** What the screen has of the core is what the core has. */
final class ScreenTest extends TestCase
{
    public function testItsConstantsAreThoseOfTheCore(): void
    {
        self::assertStringEqualsFile(ScreenConstants::FILE, ScreenConstants::written(), 'Run php tools/screen-constants.php');
    }

    public function testItsPreviewIsTestedAgainstWhatTheCoreDoesNow(): void
    {
        self::assertStringEqualsFile(PreviewFixtures::FILE, PreviewFixtures::written(), 'Run php tools/preview-fixtures.php');
    }
}
