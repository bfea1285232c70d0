<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedJsonResponse;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Role;
use Wattage\App\Figures\ClarityFigures;
use Wattage\App\Figures\ColourPlans;
use Wattage\App\Figures\DuckingPlans;
use Wattage\App\Figures\Figures;
use Wattage\App\Figures\Levelling;
use Wattage\App\Figures\LevelPlan;
use Wattage\App\Figures\PartMeasure;
use Wattage\App\Figures\PeakSearch;
use Wattage\App\Project\Comparison;
use Wattage\App\Project\History;
use Wattage\App\Project\HistoryList;
use Wattage\App\Project\MixView;
use Wattage\App\Project\Presence;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Project\Revisions;
use Wattage\App\Project\StepView;
use Wattage\App\Request\Body;
use Wattage\Core\Captions\CaptionWriter;
use Wattage\Core\Handover\Chapter;
use Wattage\Core\Interchange\FiguresTable;
use Wattage\Core\Time\Span;

/** The mix of a project, and what can be worked out about it. */
#[Route('/api/projects/{id}')]
final readonly class MixController
{
    public function __construct(private ProjectAccess $access, private History $history, private StepView $steps)
    {
    }

    #[Route('/mix', methods: 'GET')]
    public function show(Uuid $id, Presence $presence): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $presence->tidy($project);
        $head = $this->history->head($project);

        $me = $this->access->user();

        return StepView::response([
            'me' => ['id' => (string) $me->id, 'name' => $me->name],
            'project' => ['id' => (string) $project->id, 'name' => $project->name, 'role' => $project->roleOf($me)?->value],
            'mix' => MixView::whole($this->history->mix($project)),
            ...$this->steps->place($project, $head),
        ], $head);
    }

    /** The mix as a file in the open format. */
    #[Route('/mix.json', methods: 'GET')]
    public function export(Uuid $id, Revisions $revisions): JsonResponse
    {
        $head = $this->history->head($this->access->project($id, Role::Viewer));

        return JsonResponse::fromJsonString($revisions->document($head), headers: ['Content-Disposition' => 'attachment; filename="mix.json"']);
    }

    /** Markers as chapters, in the open JSON of podcasting, version 1.2 [M]: seconds and titles. */
    #[Route('/chapters.json', methods: 'GET')]
    public function chapters(Uuid $id): JsonResponse
    {
        $mix = $this->history->mix($this->access->project($id, Role::Viewer));
        $chapters = array_map(
            static fn (Chapter $chapter): array => ['startTime' => round($chapter->at / $mix->rate, 3), 'title' => $chapter->name],
            0 === $mix->length() ? [] : Chapter::of($mix, Span::of(0, $mix->length()), $mix->rate),
        );

        return new JsonResponse(['version' => '1.2.0', 'chapters' => $chapters], headers: ['Content-Disposition' => 'attachment; filename="chapters.json"']);
    }

    #[Route('/captions.{format}', requirements: ['format' => 'vtt|srt'], methods: 'GET')]
    public function captions(Uuid $id, string $format): Response
    {
        $mix = $this->history->mix($this->access->project($id, Role::Viewer));
        $all = Span::of(0, max(1, $mix->length()));

        return new Response(
            'vtt' === $format ? CaptionWriter::vtt($mix->captions, $all, $mix->rate) : CaptionWriter::srt($mix->captions, $all, $mix->rate),
            headers: ['Content-Type' => 'vtt' === $format ? 'text/vtt; charset=utf-8' : 'application/x-subrip; charset=utf-8', 'Content-Disposition' => "attachment; filename=\"captions.{$format}\""],
        );
    }

    /** From the state that a screen shows to the present one. */
    #[Route('/changes', methods: 'GET')]
    public function changes(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);

        return $this->steps->answer($this->history->since($project, $request->query->getInt('from')));
    }

    /** Any state as it sounded, to listen to beside the present one. */
    #[Route('/revisions/{number}/mix', requirements: ['number' => '\d{1,9}'], methods: 'GET')]
    public function past(Uuid $id, int $number, Revisions $revisions): JsonResponse
    {
        $revision = $revisions->numbered($this->access->project($id, Role::Viewer), $number);

        return new JsonResponse(['mix' => MixView::whole($revisions->mix($revision)), 'revision' => $revision->number, 'label' => $revision->label]);
    }

    /** What a state will measure at, and where its speech is buried. */
    #[Route('/revisions/{number}/figures', requirements: ['number' => '\d{1,9}'], methods: 'GET')]
    public function figures(Uuid $id, int $number, Figures $figures): Response
    {
        $project = $this->access->project($id, Role::Viewer);
        $mix = $this->history->mixAt($project, $number);

        return new StreamedJsonResponse(['revision' => $number, ...$figures->of($project, $mix, $figures->measured($project, $mix))]);
    }

    /** How clearly the speech of a state is understood, moment by moment, and what covers it. */
    #[Route('/revisions/{number}/clarity', requirements: ['number' => '\d{1,9}'], methods: 'GET')]
    public function clarity(Uuid $id, int $number, ClarityFigures $figures): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);

        return new JsonResponse(['revision' => $number, ...$figures->of($project, $this->history->mixAt($project, $number))]);
    }

    /** What meters show while a minute of a state plays. */
    #[Route('/revisions/{number}/moments/{minute}', requirements: ['number' => '\d{1,9}', 'minute' => '\d{1,4}'], methods: 'GET')]
    public function moments(Uuid $id, int $number, int $minute, Figures $figures): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);

        return new JsonResponse($figures->moments($project, $this->history->mixAt($project, $number), $minute));
    }

    /** The same as a table for other programs: one row per 100 ms, in JSON with the summary before them. */
    #[Route('/revisions/{number}/figures.{format}', requirements: ['number' => '\d{1,9}', 'format' => 'csv|json'], methods: 'GET')]
    public function figuresTable(Uuid $id, int $number, string $format, Figures $figures): Response
    {
        $project = $this->access->project($id, Role::Viewer);
        $mix = $this->history->mixAt($project, $number);
        $measured = $figures->measured($project, $mix);
        $table = new FiguresTable($measured->figures, $measured->clearance);
        $name = ['Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, "figures.{$format}")];
        if ('json' === $format) {
            $summary = array_diff_key($figures->of($project, $mix, $measured), ['history' => 0, 'clearance' => 0, 'clearAll' => 0]);

            return new StreamedJsonResponse(['summary' => $summary, 'columns' => FiguresTable::COLUMNS, 'rows' => $table->rows()], headers: $name);
        }

        return new StreamedResponse(static function () use ($table): void {
            foreach ($table->csv() as $line) {
                echo $line;
            }
        }, headers: [...$name, 'Content-Type' => 'text/csv; charset=utf-8']);
    }

    /** What differs between two states, in words, and how loud each is. */
    #[Route('/compare', methods: 'GET')]
    public function compare(Uuid $id, Request $request, Comparison $comparison): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $query = $request->query;

        return new JsonResponse($comparison->between($project, $query->getInt('from'), $query->getInt('to')));
    }

    /** Where clips rise above a ceiling, and the notches that tame them. */
    #[Route('/peaks', methods: 'POST')]
    public function peaks(Uuid $id, Request $request, PeakSearch $search): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $mix = $this->history->mix($project);

        return new JsonResponse(['peaks' => $search->in($mix, Body::of($request))]);
    }

    /** How loud clips, or what of them lies in a range, are heard: as they are, or as an edit would make them. */
    #[Route('/measure', methods: 'POST')]
    public function measure(Uuid $id, Request $request, PartMeasure $measure): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);

        return new JsonResponse($measure->of($project, $this->history->mix($project), Body::of($request), Body::json($request)['edit'] ?? null));
    }

    /** What evening up clips would do, and the edit that does it. */
    #[Route('/even-up', methods: 'POST')]
    public function evenUp(Uuid $id, Request $request, Levelling $levelling): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);

        return self::levelPlan($levelling->evenUp($project, $this->history->mix($project), Body::of($request)));
    }

    /** What bringing the colour of clips to that of another would do, and the edit that does it. */
    #[Route('/even-colour', methods: 'POST')]
    public function evenColour(Uuid $id, Request $request, ColourPlans $plans): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);

        return self::levelPlan($plans->plan($project, $this->history->mix($project), Body::of($request)));
    }

    /** What steadying speech in clips would do, and the edit that does it. */
    #[Route('/steady', methods: 'POST')]
    public function steady(Uuid $id, Request $request, Levelling $levelling): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);

        return self::levelPlan($levelling->steady($project, $this->history->mix($project), Body::of($request)));
    }

    private static function levelPlan(LevelPlan $plan): JsonResponse
    {
        return new JsonResponse(['rows' => $plan->rows, 'edit' => $plan->edit, 'clips' => MixView::clips($plan->after, $plan->clips)]);
    }

    /** What rules of ducking would do, and the edit that does it. */
    #[Route('/ducking', methods: 'POST')]
    public function ducking(Uuid $id, Request $request, DuckingPlans $plans): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);

        return new JsonResponse($plans->plan($project, $this->history->mix($project), Body::of($request)));
    }

    /** All revisions, newest first, a part at a time. */
    #[Route('/history', methods: 'GET')]
    public function history(Uuid $id, Request $request, HistoryList $list): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $query = $request->query;

        return new JsonResponse(['head' => $project->head, ...$list->part($project, $query->getInt('after'), $query->has('before') ? $query->getInt('before') : null)]);
    }
}
