<?php

/*
 * Makes the big project for the edit bench: one hour, 8 tracks, 200 clips, 4,000 keyframes, on one uploaded hour of sound.
 * php bench/big-project.php EMAIL [filtered], with the environment of a running stack; prints the project's id. Filtered, it has 12 tracks, with a tone of four parts
 * on every clip, a low cut on every track, and the band of speech giving way every four seconds.
 */

declare(strict_types=1);

use Doctrine\ORM\EntityManagerInterface;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Revision;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\User;
use Wattage\App\Kernel;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Filter\LowCut;
use Wattage\Core\Filter\Tone;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

require dirname(__DIR__).'/vendor/autoload.php';

$kernel = new Kernel('prod', false);
$kernel->boot();
/** @var EntityManagerInterface $entities */
$entities = $kernel->getContainer()->get('doctrine.orm.entity_manager');
$owner = $entities->getRepository(User::class)->findOneBy(['email' => $argv[1] ?? '']) ?? exit("No such account.\n");
$project = $entities->getRepository(Project::class)->findOneBy(['name' => 'Big']) ?? exit("Begin a project named Big and bring a file of an hour in first.\n");
$source = $entities->getRepository(Source::class)->findOneBy(['project' => $project])?->toMixSource() ?? exit("The file is not ready.\n");

$filtered = 'filtered' === ($argv[2] ?? '');
$tone = $filtered ? new Colour(null, new Tone([[180.0, -3.0], [500.0, 2.0], [2_000.0, 3.0], [5_000.0, -2.0]])) : Colour::none();
$dips = [];
for ($second = 2; $second < 3_590; $second += 2) {
    $dips[] = new Keyframe($second * 48_000, Decibels::of(0 === $second % 4 ? -12.0 : 0.0), Ramp::smooth());
}
$tracks = [];
for ($t = 0; $t < ($filtered ? 12 : 8); ++$t) {
    $track = Track::named("track-{$t}", "Track {$t}", $t < 2 ? Stem::Speech : [Stem::Music, Stem::Ambience, Stem::Effects][$t % 3]);
    $track = $filtered ? $track->withColour(new Colour(new LowCut(80.0)))->withBand(new Ducking(Curve::of($dips))) : $track;
    for ($c = 0; $c < 25; ++$c) {
        $in = ($c * 144 + $t * 11) % 3400 * 48_000;
        $keyframes = [];
        for ($k = 0; $k < 20; ++$k) {
            $keyframes[] = new Keyframe($in + (5 + 6 * $k) * 48_000 + $t, Decibels::of(($k + $c) % 2 ? -12.5 : -0.5), $k % 3 ? Ramp::smooth() : Ramp::line());
        }
        $track = $track->withClip(new Clip("clip-{$t}-{$c}", $source->id, "Part {$c}", $c * 144 * 48_000, $in, 140 * 48_000, Decibels::of(-12.0), Curve::of($keyframes), colour: $tone));
    }
    $tracks[] = $track;
}
$mix = Mix::of(48_000, FrameRate::F25, [$source], $tracks);
$entities->getConnection()->executeStatement('DELETE FROM revision WHERE project_id = ?', [(string) $project->id]);
$entities->persist(new Revision($project, 1, null, 'Big project', $owner, MixDocument::encode($mix)));
$project->lastRevision = 1;
$project->moveHead(1, $owner);
$entities->flush();
echo $project->id, "\n";
