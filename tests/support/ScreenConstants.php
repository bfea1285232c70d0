<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use Closure;
use Wattage\App\Http\SourceController;
use Wattage\App\Media\PictureFrames;
use Wattage\App\View\FilterView;
use Wattage\Core\Ducking\Preset;
use Wattage\Core\Edit\Range\RangeEdits;
use Wattage\Core\Filter\LowCut;
use Wattage\Core\Filter\SpeechBand;
use Wattage\Core\Filter\Tone;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\EvenUp;
use Wattage\Core\Ride\Merge;
use Wattage\Core\Speech\Steady;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Aim;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\DuckTiming;
use Wattage\Core\Timeline\Hue;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Name;
use Wattage\Core\Timeline\Room;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Zone;

/** What the screen has to know of the core before it asks: limits, what is usual, frame rates. Written to web/src/preview/constants.ts. */
final class ScreenConstants
{
    public const FILE = __DIR__.'/../../web/src/preview/constants.ts';

    public static function written(): string
    {
        $json = json_encode(self::values(), \JSON_PRETTY_PRINT | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR);

        return "/** Made from the core by php tools/screen-constants.php; a test says when it is out of date. dB, seconds and samples, as the core has them. */\nexport const CORE = {$json} as const;\n";
    }

    /** @return array<string, mixed> */
    private static function values(): array
    {
        $rate = Mix::DEFAULT_RATE;
        $seconds = static function (DuckTiming $timing) use ($rate): array {
            /** @var array<string, int> $samples */
            $samples = get_object_vars($timing);

            return array_map(static fn (int $of): float => $of / $rate, $samples);
        };
        $aim = new Aim();
        $byStem = static fn (Closure $of): array => array_combine(array_column(Stem::cases(), 'value'), array_map($of, Stem::cases()));

        return [
            'rate' => $rate,
            'segmentSeconds' => SourceController::SEGMENT_SECONDS,
            'film' => ['perRow' => PictureFrames::PER_ROW, 'seconds' => PictureFrames::SECONDS_PER_FRAME, 'width' => PictureFrames::WIDTH, 'height' => PictureFrames::HEIGHT],
            'longestName' => Name::MAX,
            'longestMix' => Mix::MAX_HOURS * 3600 * 96_000,
            'longestRamp' => RangeEdits::LONGEST_RAMP,
            'dip' => [RangeEdits::DEEPEST_DIP, RangeEdits::HIGHEST_LIFT],
            'highest' => ['clip' => Decibels::MAX_CLIP, 'fader' => Decibels::MAX_FADER],
            'faderBottom' => Merge::FADER_BOTTOM,
            'stems' => array_column(Stem::cases(), 'value'),
            'hues' => array_column(Hue::cases(), 'value'),
            'frameRates' => array_combine(
                array_column(FrameRate::cases(), 'value'),
                array_map(static fn (FrameRate $of): array => ['fraction' => $of->fraction(), 'nominal' => $of->nominal(), 'drops' => $of->dropsFrames()], FrameRate::cases()),
            ),
            'aim' => [
                'clearance' => [Aim::LEAST_CLEARANCE, Aim::MOST_CLEARANCE],
                'sensitivity' => [Aim::LEAST_SENSITIVITY, Aim::MOST_SENSITIVITY],
                'usual' => ['clearance' => $aim->clearance, 'sensitivity' => $aim->sensitivity, 'loudness' => $aim->loudness, 'truePeak' => $aim->truePeak, 'clarity' => $aim->clarity, 'room' => $aim->room->value],
                'rooms' => array_combine(array_column(Room::cases(), 'value'), array_map(static fn (Room $room): string => $room->label(), Room::cases())),
                'zones' => $byStem(static fn (Stem $stem): array => array_filter(get_object_vars(Zone::usual($stem)), is_float(...))),
            ],
            'filters' => [
                'speechBand' => array_map(FilterView::one(...), SpeechBand::recipes()),
                'lowCut' => [LowCut::LOWEST, LowCut::HIGHEST],
                'tone' => ['hertz' => [Tone::LOWEST, Tone::HIGHEST], 'most' => Tone::MOST, 'usual' => Tone::USUAL],
            ],
            'duck' => [
                'depth' => [DuckRule::DEEPEST, DuckRule::SHALLOWEST],
                'longest' => DuckTiming::LONGEST_SECONDS,
                'presets' => array_map(static fn (Preset $preset): array => ['name' => $preset->name, 'depth' => $preset->depth, 'toClarity' => $preset->toClarity, 'timing' => $seconds($preset->timing)], Preset::all($rate)),
            ],
            'steady' => [
                'window' => [Steady::SHORTEST_WINDOW, Steady::LONGEST_WINDOW],
                'up' => [0, Steady::MOST_UP],
                'down' => [0, Steady::MOST_DOWN],
                'tolerance' => [Steady::LEAST_TOLERANCE, Steady::MOST_TOLERANCE],
                'usual' => ['window' => Steady::USUAL_WINDOW, 'up' => Steady::USUAL_UP, 'down' => Steady::USUAL_DOWN, 'tolerance' => Steady::USUAL_TOLERANCE, 'ceiling' => Steady::USUAL_CEILING],
                'hush' => Steady::USUAL_HUSH,
            ],
            'average' => ['asked' => [EvenUp::LOWEST, EvenUp::HIGHEST], 'usual' => $byStem(EvenUp::usual(...))],
            'ride' => [
                'tolerance' => [0, Merge::MOST_TOLERANCE],
                'spacing' => [0, Merge::WIDEST_SPACING],
                'glide' => [0, Merge::LONGEST_GLIDE],
                'usual' => ['tolerance' => Merge::USUAL_TOLERANCE, 'spacing' => Merge::USUAL_SPACING, 'glide' => Merge::USUAL_GLIDE],
            ],
        ];
    }
}
