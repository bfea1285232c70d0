<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Interchange;

use LogicException;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Interchange\ClipDocument;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Random;

final class MixDocumentTest extends TestCase
{
    public function testWhatIsWrittenIsReadBackEqualWhateverTheCurve(): void
    {
        for ($seed = 1; $seed <= 40; ++$seed) {
            $random = new Random($seed);
            $mix = Mixes::voiceOverBed();
            $clip = $mix->clip('bed');
            $mix = $mix->withClip($clip->withCurve($random->curve(400_000, silence: true)));
            self::assertEquals($mix, MixDocument::decode(MixDocument::encode($mix)));
        }
    }

    /** The published schema, docs/mix.schema.json, read by another program's validator. */
    public function testWhatIsWrittenFollowsThePublishedSchema(): void
    {
        $schema = (string) file_get_contents(\dirname(__DIR__, 3).'/docs/mix.schema.json');
        $demo = (string) file_get_contents(\dirname(__DIR__, 3).'/demo/salt-ferry.json');
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'dip-range', 'clips' => ['bed'], 'from' => 100_000, 'to' => 200_000, 'by' => -9, 'ramp' => 4800]);
        $aimed = Mixes::edited($mix, ['edit' => 'set-aim', 'clearance' => 20, 'loudness' => -16]);
        $aimed = Mixes::edited($aimed, ['edit' => 'accept-buried', 'from' => 0, 'to' => 48_000, 'note' => 'The horn is meant to win.']);
        $aimed = Mixes::edited($aimed, ['edit' => 'set-captions', 'text' => "WEBVTT\n\n00:01.000 --> 00:02.000\nHold on.\n"]);
        self::assertEquals($aimed, MixDocument::decode(MixDocument::encode($aimed)));
        foreach ([MixDocument::encode($mix), MixDocument::encode($aimed), $demo] as $document) {
            $result = (new Validator())->validate(json_decode($document), $schema);
            self::assertTrue($result->isValid(), $result->isValid() ? '' : (string) json_encode((new ErrorFormatter())->format($result->error() ?? throw new LogicException())));
        }
        $wrong = str_replace('"at":0', '"at":-1', MixDocument::encode($mix));
        self::assertFalse((new Validator())->validate(json_decode($wrong), $schema)->isValid());
    }

    public function testTheDemoIsComplete(): void
    {
        $mix = MixDocument::decode((string) file_get_contents(\dirname(__DIR__, 3).'/demo/salt-ferry.json'));
        self::assertGreaterThanOrEqual(5 * 60 * 48_000, $mix->length());
        self::assertGreaterThanOrEqual(5, \count($mix->tracks));
        self::assertCount(12, $mix->sources);
    }

    /** @param array<string, mixed> $change */
    #[DataProvider('broken')]
    public function testAMixThatCannotBeIsRefusedAndNamesTheField(array $change, string $field): void
    {
        $document = array_replace_recursive(MixDocument::toArray(Mixes::voiceOverBed()), $change);
        try {
            MixDocument::fromArray($document);
            self::fail('It was accepted.');
        } catch (Problem $problem) {
            self::assertSame($field, $problem->field(), $problem->getMessage());
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function broken(): iterable
    {
        yield 'another format' => [['format' => 'tape'], 'format'];
        yield 'a newer version' => [['version' => 2], 'version'];
        yield 'an odd rate' => [['rate' => 12_345], 'rate'];
        yield 'an unknown frame rate' => [['frameRate' => '26'], 'frameRate'];
        yield 'a field misspelt' => [['tracs' => []], 'tracs'];
        yield 'a clip past its source' => [['tracks' => [1 => ['clips' => [['length' => 10_000_000]]]]], 'length'];
        yield 'a clip of no source' => [['tracks' => [1 => ['clips' => [['source' => 'gone']]]]], 'source'];
        yield 'a level too high' => [['tracks' => [1 => ['clips' => [['gain' => 25]]]]], 'tracks[1].clips[0].gain'];
        yield 'keyframes out of order' => [['tracks' => [1 => ['clips' => [['curve' => [['at' => 9, 'level' => 0], ['at' => 3, 'level' => 0]]]]]]], 'tracks[1].clips[0].curve'];
        yield 'two tracks of one id' => [['tracks' => [1 => ['id' => 'speech']]], 'tracks'];
        yield 'six channels' => [['sources' => [['channels' => 6]]], 'sources[0].channels'];
        yield 'tracks are no list' => [['tracks' => ['x' => 1]], 'tracks'];
    }

    public function testWhatIsNotJsonIsRefused(): void
    {
        $this->expectException(Problem::class);
        MixDocument::decode('{"format":');
    }

    public function testAFlatCurveIsWrittenAsAnEmptyList(): void
    {
        self::assertSame([], ClipDocument::toArray(Mixes::voiceOverBed()->clip('bed'))['curve']);
        self::assertTrue(Curve::flat()->isFlat());
    }
}
