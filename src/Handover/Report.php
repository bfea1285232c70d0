<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Dompdf\Dompdf;
use Dompdf\Options;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Twig\Environment;
use Twig\Loader\FilesystemLoader;
use Twig\TwigFilter;
use Wattage\App\Entity\Delivery;
use Wattage\App\Entity\Project;
use Wattage\App\Figures\Figures;
use Wattage\App\Project\History;
use Wattage\Core\Handover\ReportDrawing;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;

/**
 * What a client is given to believe: what a file measures at against what it was to reach, how clear its speech is, and what was done.
 * Loudness and peaks are of the file itself; clearance and the levels of stems are of what it was made from.
 */
final readonly class Report
{
    /** Stretches that are listed; how many there are in all is said. */
    private const MOST = 100;

    public function __construct(private History $history, private Figures $figures, #[Autowire('%kernel.project_dir%/templates')] private string $templates)
    {
    }

    /**
     * @param Delivery $delivery finished
     * @param ?int $before a revision to set beside it
     *
     * @return array<string, mixed>
     */
    public function data(Delivery $delivery, ?int $before = null): array
    {
        $project = $delivery->project;
        $mix = $this->history->mixAt($project, $delivery->revision);
        $span = $delivery->order()->excerpt->span($mix);

        return [
            'project' => $project->name,
            'file' => FileName::of($delivery, $mix),
            'sha256' => $delivery->sha256,
            'made' => $delivery->createdAt->format('Y-m-d H:i'),
            'revision' => $delivery->revision,
            'recipe' => $delivery->recipe,
            'order' => $delivery->document,
            'outcome' => $delivery->outcome,
            'guarded' => $this->guarded($delivery, $mix, $span),
            'mix' => $this->standing($delivery->project, $mix, $span),
            'before' => null === $before ? null : ['revision' => $before, ...$this->standing($project, $this->history->mixAt($project, $before), null)],
        ];
    }

    /**
     * Of a file by itself, of whose mix nothing is known.
     *
     * @param array<string, mixed> $outcome as {@see Outcome} says it
     *
     * @return array<string, mixed>
     */
    public function ofFile(string $name, string $sha256, array $outcome): array
    {
        /** @var array{guard: array{places: list<array{at: int, db: float, track: ?string}>}} $outcome */
        $guarded = array_map(static fn (array $place): array => ['seconds' => $place['at'] / Mix::DEFAULT_RATE, 'db' => $place['db'], 'track' => null], $outcome['guard']['places']);

        return ['project' => '', 'file' => $name, 'sha256' => $sha256, 'made' => date('Y-m-d H:i'), 'revision' => null, 'recipe' => '', 'order' => null, 'outcome' => $outcome, 'guarded' => $guarded, 'mix' => null, 'before' => null];
    }

    /**
     * @param array<string, mixed> $data
     * @param string $format html, pdf, json or csv
     */
    public function written(array $data, string $format): string
    {
        return match ($format) {
            'pdf' => $this->pdf($data),
            'json' => json_encode($data, \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR),
            'csv' => $this->csv($data),
            default => $this->html($data),
        };
    }

    /**
     * How a state of the mix stands, as it is worked out from its parts.
     *
     * @param ?Span $span of the timeline that counts; null for all of it
     *
     * @return array<string, mixed> seconds are those of the file
     */
    private function standing(Project $project, Mix $mix, ?Span $span): array
    {
        $figures = $this->figures->of($project, $mix, $this->figures->measured($project, $mix));
        $from = $span->from ?? 0;
        /** @var list<array{from: int, to: int, worst: float, covering: ?string, accepted: ?string}> $buried */
        $buried = array_values(array_filter((array) $figures['buried'], static fn (mixed $b): bool => \is_array($b) && (null === $span || ($b['to'] > $span->from && $b['from'] < $span->to))));
        $seconds = static fn (int $sample): float => max(0, $sample - $from) / $mix->rate;

        return [
            'programme' => $figures['programme'],
            'stems' => $figures['stems'],
            'wanted' => $mix->aim->clearance,
            'clearPart' => $figures['clearPart'],
            'buriedInAll' => \count($buried),
            'buried' => array_map(static fn (array $b): array => [
                'from' => $seconds($b['from']),
                'to' => $seconds($b['to']),
                'worst' => $b['worst'],
                'covering' => null === $b['covering'] ? null : $mix->tracks[$b['covering']]->name ?? null,
                'accepted' => $b['accepted'],
            ], \array_slice($buried, 0, self::MOST)),
        ];
    }

    /** @return list<array{seconds: float, db: float, track: ?string}> in the order of time */
    private function guarded(Delivery $delivery, Mix $mix, Span $span): array
    {
        /** @var array{guard?: array{places: list<array{at: int, db: float, track: ?string}>}} $outcome */
        $outcome = $delivery->outcome ?? [];
        $places = array_map(static fn (array $place): array => [
            'seconds' => ($place['at'] - $span->from) / $mix->rate,
            'db' => $place['db'],
            'track' => null === $place['track'] ? null : $mix->tracks[$place['track']]->name ?? null,
        ], $outcome['guard']['places'] ?? []);
        usort($places, static fn (array $a, array $b): int => $a['seconds'] <=> $b['seconds']);

        return $places;
    }

    /** @param array<string, mixed> $data as {@see data()} gives it */
    private function html(array $data): string
    {
        $twig = new Environment(new FilesystemLoader($this->templates), ['strict_variables' => true, 'autoescape' => 'html']);
        $twig->addFilter(new TwigFilter('level', static fn (?float $value): string => null === $value ? 'silent' : str_replace('-', '−', \sprintf('%+.1f', $value))));
        $twig->addFilter(new TwigFilter('clock', static fn (float $seconds): string => (string) preg_replace('/(\.\d)\d+$/', '$1', Timecode::clock((int) round(1000 * $seconds), 1000))));

        return $twig->render('report.html.twig', ['report' => $data, 'drawing' => 'data:image/svg+xml;base64,'.base64_encode(self::drawing($data))]);
    }

    /** @param array<string, mixed> $data */
    private function pdf(array $data): string
    {
        // Nothing is fetched: all that it shows is in the text.
        $pdf = new Dompdf((new Options())->setIsRemoteEnabled(false)->setDefaultFont('DejaVu Sans'));
        $pdf->loadHtml($this->html($data));
        $pdf->setPaper('A4');
        $pdf->render();

        return (string) $pdf->output();
    }

    /** @param array<string, mixed> $data one row for each value of the loudness along the file */
    private function csv(array $data): string
    {
        /** @var array{history: array{every: int, lufs: list<?float>}} $outcome */
        $outcome = $data['outcome'];
        $rows = "seconds,short-term LUFS\n";
        foreach ($outcome['history']['lufs'] as $i => $lufs) {
            $rows .= (3 + $i * $outcome['history']['every']).','.(null === $lufs ? '' : $lufs)."\n";
        }

        return $rows;
    }

    /** @param array<string, mixed> $data */
    private static function drawing(array $data): string
    {
        /** @var array{outcome: array{seconds: float, target: array{loudness: ?float}, history: array{every: int, lufs: list<?float>}}, guarded: list<array{seconds: float}>, mix: ?array{buried: list<array{from: float, to: float, accepted: ?string}>}} $data */
        $outcome = $data['outcome'];
        $open = array_filter($data['mix']['buried'] ?? [], static fn (array $b): bool => null === $b['accepted']);

        return ReportDrawing::svg($outcome['seconds'], $outcome['history']['every'], $outcome['history']['lufs'], $outcome['target']['loudness'], array_map(static fn (array $b): array => [$b['from'], $b['to']], array_values($open)), array_column($data['guarded'], 'seconds'));
    }
}
