<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Timeline;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Timeline\Anchor;
use Wattage\Tests\support\Mixes;

final class AnchorTest extends TestCase
{
    private const SECOND = Mixes::SECOND;

    public function testAMomentGoesWithTheSpeechThatSoundsInIt(): void
    {
        $mix = Mixes::voiceOverBed();
        $anchor = Anchor::at($mix, 5 * self::SECOND);
        self::assertSame('src-voice', $anchor?->source);
        self::assertSame(5 * self::SECOND, $anchor->in($mix, 0));
        $moved = Mixes::edited($mix, ['edit' => 'move-clips', 'clips' => ['voice'], 'later' => 1000]);
        self::assertSame(5 * self::SECOND + 1000, $anchor->in($moved, 0));
        $split = Mixes::edited($mix, ['edit' => 'split', 'cuts' => [['clip' => 'voice', 'at' => 4 * self::SECOND]]]);
        self::assertSame(5 * self::SECOND, $anchor->in($split, 0), 'it is found in the half that has a new id');
    }

    public function testACutOutMomentIsNowhereAndASilentOneHasNoAnchor(): void
    {
        $mix = Mixes::voiceOverBed();
        $anchor = Anchor::at($mix, 5 * self::SECOND);
        $without = Mixes::edited($mix, ['edit' => 'remove-range', 'from' => 4 * self::SECOND, 'to' => 6 * self::SECOND]);
        self::assertNull($anchor?->in($without, 5 * self::SECOND));
        self::assertSame('src-bed', Anchor::at($mix, self::SECOND)?->source, 'nobody speaks yet');
        self::assertNull(Anchor::at($mix, 60 * self::SECOND));
    }

    public function testOfASoundUsedTwiceTheNearestIsMeant(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'duplicate-clips', 'clips' => ['voice'], 'later' => 10 * self::SECOND]);
        $anchor = new Anchor('src-voice', 2 * self::SECOND);
        self::assertSame(3 * self::SECOND, $anchor->in($mix, 0));
        self::assertSame(13 * self::SECOND, $anchor->in($mix, 12 * self::SECOND));
    }
}
