<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Edit;

use PHPUnit\Framework\TestCase;
use Throwable;
use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\EditReader;
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
