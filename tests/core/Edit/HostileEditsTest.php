<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Edit;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Throwable;
use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Interchange\MixDifference;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Mixes;

/** Every field of every edit that the other tests know, with values that nobody types: each is refused with a sentence, or gives a mix that can be stored and read. */
final class HostileEditsTest extends TestCase
{
    public function testEveryFieldTakesNonsenseWithoutFalling(): void
    {
        $tried = 0;
        foreach (self::examples() as [$mix, $edit]) {
            foreach (self::mutants($edit) as $mutant) {
                self::try($mix, $mutant);
                ++$tried;
            }
        }
        self::assertGreaterThan(4000, $tried);
    }

    /** A misspelt field would else be left out without a word, and something other done than was meant. */
    public function testAFieldThatNoEditHasIsRefusedByName(): void
    {
        $tried = 0;
        foreach (self::examples() as [$mix, $edit]) {
            try {
                (new EditReader($mix, Mixes::sources()))->read($edit);
            } catch (Problem) {
                continue; // not one that is meant to be taken
            }
            try {
                (new EditReader($mix, Mixes::sources()))->read([...$edit, 'gian' => 3]);
                self::fail(json_encode($edit, \JSON_THROW_ON_ERROR).' took a field that nobody knows.');
            } catch (Problem $problem) {
                self::assertSame('gian', $problem->field(), $problem->getMessage());
                ++$tried;
            }
        }
        self::assertGreaterThan(60, $tried);
    }

    public function testAFieldThatNobodyKnowsIsRefusedWithinAnObjectToo(): void
    {
        try {
            (new EditReader(Mixes::voiceOverBed()))->read(['edit' => 'set-clip-gains', 'gains' => [['clip' => 'bed', 'gain' => -3, 'gian' => 2]]]);
            self::fail('It was taken.');
        } catch (Problem $problem) {
            self::assertSame('gains[0].gian', $problem->field());
        }
    }

    /** @param array<string, mixed> $edit */
    #[DataProvider('tooMuch')]
    public function testMoreThanOneEditCanDoIsRefusedBeforeItIsTried(array $edit): void
    {
        $mix = self::crowded();
        $began = hrtime(true);
        try {
            Change::by((new EditReader($mix))->read($edit), $mix);
            self::fail('It was done.');
        } catch (Problem $problem) {
            self::assertMatchesRegularExpression('/[Ss]everal steps|at most/', $problem->getMessage());
        }
        // Not to time it: what is tried here would take a minute and more.
        self::assertLessThan(20.0, (hrtime(true) - $began) / 1e9);
    }

    /** @return iterable<string, array{array<string, mixed>}> */
    public static function tooMuch(): iterable
    {
        $all = array_map(static fn (int $i): string => "c{$i}", range(0, 3999));
        $dip = ['clips' => ['big'], 'from' => 0, 'to' => 4800, 'by' => -3, 'ramp' => 0];
        yield 'cuts' => [['edit' => 'split', 'cuts' => array_map(static fn (int $i): array => ['clip' => 'big', 'at' => 100 + $i], range(0, 5999))]];
        yield 'cuts of a clip with many keyframes' => [['edit' => 'split', 'cuts' => array_map(static fn (int $i): array => ['clip' => 'big', 'at' => 100 + 4800 * $i], range(0, 199))]];
        yield 'keyframes in all clips' => [['edit' => 'paste-levels', 'clips' => $all, 'curve' => array_map(static fn (int $i): array => ['at' => 100 * $i, 'level' => -$i], range(0, 59))]];
        yield 'dips of a clip with many keyframes' => [['edit' => 'dips', 'dips' => array_fill(0, 1000, $dip)]];
        yield 'notches' => [['edit' => 'tame', 'notches' => array_fill(0, 2000, ['clip' => 'big', 'at' => 100, 'by' => -1, 'before' => 10, 'after' => 10])]];
        yield 'gaps to close' => [['edit' => 'remove-clips', 'clips' => $all, 'close' => true]];
        yield 'a range over all clips' => [['edit' => 'dip-range', 'clips' => $all, 'from' => 0, 'to' => 4000 * 9600, 'by' => -3, 'ramp' => 0]];
        yield 'clips to loop' => [['edit' => 'loop-clip', 'clip' => 'c3999', 'until' => 23 * 3600 * 48_000]];
    }

    /** Four thousand short clips on one track, and a long one with five thousand keyframes on another. */
    private static function crowded(): Mix
    {
        /** @var ?Mix $mix */
        static $mix = null;
        $clip = static fn (string $id, int $at, int $length, array $curve): array => ['id' => $id, 'name' => $id, 'source' => 's', 'at' => $at, 'in' => 0, 'length' => $length, 'curve' => $curve];
        $clips = array_map(static fn (int $i): array => $clip("c{$i}", 9600 * $i, 9000, []), range(0, 3999));
        $big = $clip('big', 0, 48_000 * 3600, array_map(static fn (int $i): array => ['at' => 4800 * $i, 'level' => -($i % 20)], range(0, 4999)));

        return $mix ??= MixDocument::fromArray([
            ...(array) json_decode(MixDocument::encode(Mix::empty()), true),
            'sources' => [['id' => 's', 'name' => 's', 'length' => 48_000 * 7200, 'channels' => 1]],
            'tracks' => [['id' => 'a', 'name' => 'A', 'stem' => 'speech', 'clips' => $clips], ['id' => 'b', 'name' => 'B', 'stem' => 'music', 'clips' => [$big]]],
        ]);
    }

    public function testTheTimesOfCaptionsHaveAnEnd(): void
    {
        $mix = Mixes::voiceOverBed();
        foreach (["999999999999:00:00,000 --> 999999999999:00:01,000\nx", "00:00:01,000 --> 999999999999:99:99,999\nx", "00:00:01,000 --> 00:00:02,000\nnull \0 here", "00:00:01,000 --> 00:00:02,000\nhalf of a letter \xC3"] as $cue) {
            foreach (["1\n{$cue}\n", "WEBVTT\n\n".strtr($cue, ',', '.')."\n"] as $text) {
                self::try($mix, ['edit' => 'set-captions', 'text' => $text]);
            }
        }
    }

    private static function try(Mix $mix, mixed $edit): void
    {
        try {
            $made = (new EditReader($mix, Mixes::sources()))->read($edit);
            $label = $made->label($mix);
            $after = Change::by($made, $mix);
        } catch (Problem $problem) {
            self::assertNotSame('', $problem->getMessage());

            return;
        } catch (Throwable $fault) {
            self::fail($fault::class.": {$fault->getMessage()} at ".basename($fault->getFile()).":{$fault->getLine()} for ".var_export($edit, true));
        }
        $shown = var_export($edit, true);
        self::assertTrue(mb_check_encoding($label, 'UTF-8') && !str_contains($label, "\0"), $shown);
        $json = MixDocument::encode($after);
        self::assertStringNotContainsString('\u0000', $json, $shown);
        self::assertEquals($after, MixDocument::decode($json), $shown);
        self::assertEquals($after, MixDocument::fromArray(MixDifference::applied(MixDocument::encode($mix), [MixDifference::between($mix, $after)])), $shown);
    }

    /** @return iterable<array{Mix, array<string, mixed>}> */
    private static function examples(): iterable
    {
        $mix = EditTest::mixWithDip();
        foreach ([EditTest::edits(), EditTest::moreEdits(), DeskEditsTest::edits(), MeasuredEditsTest::edits()] as $edits) {
            foreach ($edits as [$edit]) {
                yield [$mix, $edit];
            }
        }
    }

    /**
     * The edit with each of its values in turn replaced, left out, or joined by one that is unknown.
     *
     * @param array<array-key, mixed> $edit
     *
     * @return iterable<array<array-key, mixed>>
     */
    private static function mutants(array $edit): iterable
    {
        foreach ($edit as $name => $value) {
            if ('edit' === $name) {
                continue;
            }
            foreach ([null, true, -\INF, \INF, 1e308, -1e308, 1e-320, \PHP_INT_MAX, \PHP_INT_MIN, -1, 0.5, '', "\0", str_repeat('9', 400), '-1e400', "\u{202E}x", "\xFF", [], [[]], [[[[]]]], ['a' => 1], str_repeat('x', 5000)] as $nonsense) {
                yield [...$edit, $name => $nonsense];
            }
            yield array_diff_key($edit, [$name => 0]);
            if (\is_array($value)) {
                foreach (self::mutants($value) as $mutant) {
                    yield [...$edit, $name => $mutant];
                }
            }
        }
        yield [...$edit, 'unheard of' => 1];
    }
}
