<?php

declare(strict_types=1);

namespace Wattage\App\Command;

use Symfony\Component\Console\Input\InputInterface;
use Wattage\App\Handover\FileName;
use Wattage\App\Handover\Recipes;
use Wattage\App\Media\Refused;
use Wattage\Core\Handover\Excerpt;
use Wattage\Core\Handover\FileFormat;
use Wattage\Core\Handover\FileOrder;
use Wattage\Core\Handover\NamePattern;
use Wattage\Core\Handover\Target;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Problem;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;

/** What the console was asked to render: files by their names. */
final readonly class RenderOptions
{
    public const FORMATS = 'pcm16, pcm24, float32, flac, mp3, aac, opus, film or matroska';

    /**
     * @return non-empty-array<string, FileOrder> by the path to write
     *
     * @throws Problem|Refused
     */
    public static function files(InputInterface $input, Mix $mix, string $out): array
    {
        $recipe = self::text($input, 'recipe');
        if (null !== $recipe) {
            return self::ofRecipe($recipe, $mix, $out);
        }
        $range = self::range(self::text($input, 'range'), $mix);
        $stems = self::text($input, 'stems');
        if (null === $stems) {
            return [$out => self::order($input, Excerpt::programme($range), false, $mix->rate)];
        }
        $files = [];
        foreach ('all' === $stems ? Stem::cases() : array_map(self::stem(...), explode(',', $stems)) as $stem) {
            $files[self::beside($out, $stem->value)] = self::order($input, Excerpt::stem($stem, $range), true, $mix->rate);
        }

        return $files;
    }

    public static function isKnownFormat(mixed $format): bool
    {
        return \is_string($format) && (null !== SampleFormat::tryFrom($format) || !\in_array(FileFormat::tryFrom($format), [null, FileFormat::Wav, FileFormat::Archive], true));
    }

    /**
     * @return non-empty-array<string, FileOrder>
     *
     * @throws Problem|Refused
     */
    private static function ofRecipe(string $file, Mix $mix, string $out): array
    {
        is_file($file) || throw new Refused("There is no recipe {$file}.");
        is_dir($out) || throw new Refused("A recipe makes several files: {$out} must be a directory.");
        $fields = Fields::of(json_decode((string) file_get_contents($file), true, 16));
        $pattern = new NamePattern($fields->string('pattern', NamePattern::USUAL));
        $files = [];
        foreach (Recipes::files($fields) as $i => $order) {
            $name = $pattern->name(['project' => 'Mix', 'recipe' => $fields->string('name', ''), 'part' => FileName::part($order->excerpt, $mix), 'date' => date('Y-m-d')]);
            $path = "{$out}/{$name}.{$order->format->ending()}";
            $files[isset($files[$path]) ? "{$out}/{$name} {$i}.{$order->format->ending()}" : $path] = $order;
        }

        return $files;
    }

    /** @throws Problem */
    private static function order(InputInterface $input, Excerpt $excerpt, bool $asProgramme, int $rate): FileOrder
    {
        $target = Target::of(self::number($input, 'target'), self::number($input, 'true-peak'));
        $format = (string) self::text($input, 'format');
        $samples = SampleFormat::tryFrom($format);
        if (null !== $samples) {
            return new FileOrder(FileFormat::Wav, $samples->bits(), 0, $rate, 2, $excerpt, $target, $asProgramme);
        }
        $coded = FileFormat::from($format);

        return new FileOrder($coded, [] === $coded->bits() ? 0 : 24, $coded->kbps()[1], \in_array($rate, $coded->rates(), true) ? $rate : Mix::DEFAULT_RATE, 2, $excerpt, $target, $asProgramme);
    }

    /** @throws Problem|Refused */
    private static function range(?string $text, Mix $mix): ?Span
    {
        if (null === $text) {
            return null;
        }
        $ends = explode('-', $text);
        2 === \count($ends) || throw new Refused('A range is two times with a dash in between, such as 0:30-1:15.');

        return Span::of(...array_map(static fn (string $time): int => Timecode::parse($time, $mix->rate, $mix->frameRate), $ends));
    }

    private static function stem(string $name): Stem
    {
        return Stem::tryFrom(trim($name)) ?? throw new Refused("There is no stem “{$name}”. There are ".implode(', ', array_column(Stem::cases(), 'value')).'.');
    }

    private static function beside(string $out, string $part): string
    {
        $ending = pathinfo($out, \PATHINFO_EXTENSION);

        return '' === $ending ? "{$out} {$part}" : substr($out, 0, -\strlen($ending) - 1)." {$part}.{$ending}";
    }

    private static function number(InputInterface $input, string $name): ?float
    {
        $text = self::text($input, $name);

        return null === $text ? null : (is_numeric($text) ? (float) $text : \NAN);
    }

    private static function text(InputInterface $input, string $name): ?string
    {
        $value = $input->getOption($name);

        return \is_string($value) ? $value : null;
    }
}
