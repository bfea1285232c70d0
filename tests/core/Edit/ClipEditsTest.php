<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Edit;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Render\GainSchedule;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\UnknownItem;
use Wattage\Tests\support\Mixes;

/** What becomes of single clips: another recording in their place, silence with their levels kept, a track made for them. */
final class ClipEditsTest extends TestCase
{
    private const S = Mixes::SECOND;

    public function testAnotherRecordingTakesTheirPlaceAndAllElseStays(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'dip-range', 'clips' => ['voice'], 'from' => 4 * self::S, 'to' => 5 * self::S, 'by' => -9, 'ramp' => 4800]);
        $mix = Mixes::edited($mix, ['edit' => 'set-fade', 'clips' => ['voice'], 'edge' => 'in', 'length' => 4800]);
        $old = $mix->clip('voice');
        $new = self::replaced($mix, 'voice', 12 * self::S, 1)->clip('voice');
        self::assertSame(['take-2', 'Take two', $old->at, $old->in, $old->length], [$new->source, $new->name, $new->at, $new->in, $new->length]);
        self::assertEquals([$old->curve, $old->fadeIn, $old->gain], [$new->curve, $new->fadeIn, $new->gain]);
    }

    public function testAShorterOneSoundsAsLongAsItIsWithItsLevelsAgainstTheSameMoments(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'dip-range', 'clips' => ['voice'], 'from' => 4 * self::S, 'to' => 5 * self::S, 'by' => -9, 'ramp' => 4800]);
        $new = self::replaced($mix, 'voice', 5 * self::S, 1)->clip('voice');
        self::assertSame([2 * self::S, 0, 5 * self::S], [$new->at, $new->in, $new->length]);
        self::assertEqualsWithDelta(-9.0, $new->levelAt((int) (4.5 * self::S))->db, 1e-9);
        self::assertEqualsWithDelta(0.0, $new->levelAt(6 * self::S)->db, 1e-9);
    }

    public function testLevelsOfChannelsThatItDoesNotHaveGo(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'open-channels', 'clips' => ['bed'], 'open' => true]);
        self::assertFalse(self::replaced($mix, 'bed', 20 * self::S, 1)->clip('bed')->channels->isOpen());
        self::assertTrue(self::replaced($mix, 'bed', 20 * self::S, 2)->clip('bed')->channels->isOpen());
    }

    public function testAMutedClipIsSilentAndKeepsItsLevels(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => -3]);
        $muted = Mixes::edited($mix, ['edit' => 'set-clips-muted', 'clips' => ['bed', 'voice'], 'muted' => true]);
        self::assertSame([], GainSchedule::parts($muted, $muted->clip('bed'), Fades::of($muted->track('music'))));
        self::assertEquals($muted, MixDocument::decode(MixDocument::encode($muted)));
        self::assertEquals($mix, Mixes::edited($muted, ['edit' => 'set-clips-muted', 'clips' => ['bed', 'voice'], 'muted' => false]));
        self::assertSame($muted, Mixes::edited($muted, ['edit' => 'set-clips-muted', 'clips' => ['bed'], 'muted' => true]));
    }

    public function testLinkedFadersObeyTyping(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-fader', 'track' => 'music', 'fader' => -5]);
        $mix = Mixes::edited($mix, ['edit' => 'set-fader', 'track' => 'speech', 'fader' => '-4 dB', 'linked' => ['speech', 'music', 'gone']]);
        self::assertSame([-4.0, -9.0], [$mix->track('speech')->fader->db, $mix->track('music')->fader->db]);
        $mix = Mixes::edited($mix, ['edit' => 'set-fader', 'track' => 'speech', 'fader' => 12, 'linked' => ['music']]);
        self::assertSame(7.0, $mix->track('music')->fader->db);
        $lane = Mixes::edited($mix, ['edit' => 'add-keyframe', 'track' => 'music', 'lane' => 'level', 'at' => 0, 'level' => -9]);
        self::assertSame(7.0, Mixes::edited($lane, ['edit' => 'set-fader', 'track' => 'speech', 'fader' => 0, 'linked' => ['music']])->track('music')->fader->db);
    }

    public function testAPlaceWithoutATrackMakesOneOfItsKind(): void
    {
        $edit = ['edit' => 'add-clip', 'track' => 'new', 'clip' => 'c', 'source' => 'src-bed', 'at' => self::S];
        $mix = Mixes::edited(Mix::empty(), [...$edit, 'stem' => 'ambience', 'name' => 'Shore']);
        self::assertSame(['Shore', Stem::Ambience, self::S], [$mix->track('new')->name, $mix->track('new')->stem, $mix->clip('c')->at]);
        self::assertSame('Music', Mixes::edited(Mixes::voiceOverBed(), [...$edit, 'track' => 'music', 'stem' => 'speech', 'at' => 20 * self::S])->track('music')->name);
        $this->expectException(UnknownItem::class);
        Mixes::edited(Mix::empty(), $edit);
    }

    public function testAPictureThatStandsByItselfIsTrimmedWithinItsRecording(): void
    {
        $film = ['film' => new Source('film', 'Crossing', 10 * self::S, 2, Decibels::unchanged(), picture: true)];
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'add-clip', 'track' => 'music', 'clip' => 'f', 'source' => 'film', 'at' => 20 * self::S], $film);
        $mix = Mixes::edited($mix, ['edit' => 'detach-picture', 'clips' => ['f']]);
        $picture = array_values($mix->pictures)[0];
        $trimmed = Mixes::edited($mix, ['edit' => 'trim-picture', 'picture' => $picture->id, 'from' => 22 * self::S, 'to' => 25 * self::S])->picture($picture->id);
        self::assertSame([22 * self::S, 2 * self::S, 3 * self::S], [$trimmed->at, $trimmed->in, $trimmed->length]);
        $this->expectException(InvalidEdit::class);
        Mixes::edited($mix, ['edit' => 'trim-picture', 'picture' => $picture->id, 'from' => 19 * self::S, 'to' => 25 * self::S]);
    }

    private static function replaced(Mix $mix, string $clip, int $length, int $channels): Mix
    {
        return Mixes::edited($mix, ['edit' => 'replace-sound', 'clip' => $clip, 'source' => 'take-2'], ['take-2' => new Source('take-2', 'Take two', $length, $channels, Decibels::unchanged())]);
    }
}
